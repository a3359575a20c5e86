package harpel.app.editor;

import harpel.app.desk.TimelineDesk;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.app.perform.Performing;
import harpel.app.transport.Transport;
import harpel.theory.Spelling;

/** What the editors of stages ask and use beside the stage they show. */
public record Around(
        Document document,
        Selection selection,
        Look look,
        Transport transport,
        TimelineDesk timeline,
        Performing performing,
        Messages messages) {
    /** How notes are written. */
    Spelling spelling() {
        return document.spelling();
    }

    void say(String text) {
        messages.say(text);
    }
}
