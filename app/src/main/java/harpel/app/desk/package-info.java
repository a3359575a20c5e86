/** What is worked on: the phrase, the timeline, variations; recording, keeping and printing what was heard. */
package harpel.app.desk;
