package harpel.effect;

import harpel.event.Message;
import harpel.param.Param;
import harpel.param.type.ChoiceType;
import harpel.param.type.IntType;

/** What an effect that holds notes does with the sustain pedal (controller 64, MIDI 1.0: 0–63 up, 64–127 down). */
public enum Pedal {
    PASS,
    HOLD;

    public static final Param<Pedal> PARAM = Param.of(
            "pedal",
            ChoiceType.of(Pedal.class),
            PASS,
            "pass: the pedal goes on to the instrument; hold: keys let go while it is down stay held here.");

    public static final Param<Integer> LET_GO = Param.of(
            "let-go-controller",
            IntType.of(0, 127, "").orWord("none"),
            -1,
            "A controller that lets go of what is held when it rises to 64 or more.");

    public static boolean isDown(Message message) {
        return message.data(2) >= 64;
    }
}
