/** What is done on stage: pads, moments, levers and the controller in hand, and writing it onto the timeline. */
package harpel.app.perform;
