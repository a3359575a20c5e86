package harpel.control;

import harpel.control.ControllerMap.Grid;
import java.util.Arrays;
import java.util.function.Consumer;

/** Tells a device its lights: only those that have changed, all of them at first, and off in the end. Owned by one thread. */
public final class LightSender {
    private final Grid grid;
    private final ControllerMap.Lights how;
    private final Consumer<byte[]> to;
    private final Light[] sent;

    /** @param to takes messages */
    public LightSender(ControllerMap map, Consumer<byte[]> to) {
        this.grid = map.pads();
        this.how = map.lights();
        this.to = to;
        this.sent = grid == null ? new Light[0] : new Light[grid.columns() * grid.rows()];
    }

    /** Shows lights, row by row from the top left. */
    public void show(Light[] lights) {
        if (how == null) {
            return;
        }
        for (int i = 0; i < sent.length; i++) {
            Light light = i < lights.length && lights[i] != null ? lights[i] : Light.OFF;
            if (light != sent[i]) {
                sent[i] = light;
                to.accept(message(i, light));
            }
        }
    }

    /** The device was connected anew: all are told again with the next. */
    public void connected() {
        Arrays.fill(sent, null);
    }

    /** All lights go out. */
    public void off() {
        show(new Light[0]);
    }

    private byte[] message(int place, Light light) {
        int colour = how.colours().get(light.ordinal());
        int note = grid.note(place % grid.columns(), place / grid.columns());
        return how.byChannel()
                ? new byte[] {(byte) (0x90 | colour - 1 & 0x0F), (byte) note, (byte) (light == Light.OFF ? 0 : 127)}
                : new byte[] {(byte) 0x90, (byte) note, (byte) colour};
    }
}
