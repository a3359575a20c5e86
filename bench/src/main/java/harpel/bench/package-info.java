/** Measurements, one class a question; docs/performance.md has their figures and says how they were taken. */
package harpel.bench;
