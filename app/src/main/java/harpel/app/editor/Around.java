package harpel.app.editor;

import harpel.app.session.Document;
import harpel.app.session.Look;
import harpel.app.session.Messages;
import harpel.app.session.Performing;
import harpel.app.session.Selection;
import harpel.app.session.TimelineDesk;
import harpel.app.session.Transport;

/** What the editors of stages ask and use beside the stage they show. */
public record Around(
        Document document,
        Selection selection,
        Look look,
        Transport transport,
        TimelineDesk timeline,
        Performing performing,
        Messages messages) {
    void say(String text) {
        messages.say(text);
    }
}
