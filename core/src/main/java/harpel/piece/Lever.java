package harpel.piece;

/**
 * A named performance control that moves any number of parameters, each by an amount of its own.
 *
 * @param value where it stands, 0–100 %
 * @param controller the controller that moves it on any input, 0–127, or -1 for none
 */
public record Lever(String name, double value, int controller) {
    public Lever {
        if (name.isBlank()) {
            throw new IllegalArgumentException("a lever has a name");
        }
        if (!(value >= 0 && value <= 100)) {
            throw new IllegalArgumentException("lever \"" + name + "\" must stand at 0–100 % but was at " + value);
        }
        if (controller < -1 || controller > 127) {
            throw new IllegalArgumentException("lever \"" + name + "\": a controller is 0–127 but was " + controller);
        }
    }

    public Lever withValue(double newValue) {
        return new Lever(name, newValue, controller);
    }
}
