/** Controllers with pads, knobs and lights: what their notes and controllers mean, and what lights them. No interface code. */
package harpel.control;
