package harpel.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import harpel.device.SoundBank;
import harpel.piece.Piece;
import harpel.piece.Voice;
import harpel.port.OutputPort;
import harpel.port.Ports;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

/** The built-in sounds: opened when there is a device, again when it is back, safer when blocks come late. */
class BuiltInSoundTest {
    private final Ports ports = new Ports(() -> 0, false);
    private final BuiltInSound.Opener opener = mock(BuiltInSound.Opener.class);
    private final List<String> problems = new ArrayList<>();
    private final List<String> said = new ArrayList<>();
    private final BuiltInSound sound = new BuiltInSound(ports, opener, problems::add, said::add);

    private static SoundEngine engine(Delay delay, long late, String problem) {
        SoundEngine engine = mock(SoundEngine.class);
        try {
            when(engine.part(any())).thenAnswer(call -> mock(OutputPort.class));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        state(engine, delay, late, problem);
        return engine;
    }

    private static void state(SoundEngine engine, Delay delay, long late, String problem) {
        when(engine.delay()).thenReturn(delay);
        when(engine.state()).thenReturn(new SoundEngine.State("", delay, late, 0, 0, 0, 0, 0, 0, problem));
    }

    @Test
    void withoutADeviceThatIsSaidOnceAndTheMomentOneAppearsItIsUsed() throws IOException {
        SoundEngine engine = engine(Delay.NORMAL, 0, "");
        when(opener.open("", Delay.NORMAL, null))
                .thenThrow(new IOException("none"))
                .thenThrow(new IOException("none"))
                .thenReturn(engine);
        sound.look();
        sound.look();
        assertThat(problems).containsExactly(BuiltInSound.NO_DEVICE);
        assertThat(ports.names()).isEmpty();
        assertThat(sound.state()).isEmpty();
        assertThat(sound.delayNanos()).as("what is seen waits for nothing").isZero();
        sound.look();
        assertThat(sound.delayNanos()).isEqualTo(10_000_000);
        assertThat(problems).containsExactly(BuiltInSound.NO_DEVICE, "");
        assertThat(ports.names()).containsExactly(Ports.BUILT_IN);
        assertThat(ports.takeOpened()).as("its parts are told their sounds").isEqualTo(Ports.BUILT_IN);
        assertThat(sound.state()).isPresent();
        sound.look();
        verify(opener, times(3)).open("", Delay.NORMAL, null);
    }

    @Test
    void aDeviceThatIsGoneIsSaidAndTakenUpAgain() throws IOException {
        SoundEngine engine = engine(Delay.NORMAL, 0, "");
        SoundEngine again = engine(Delay.NORMAL, 0, "");
        when(opener.open("", Delay.NORMAL, null))
                .thenReturn(engine)
                .thenThrow(new IOException("gone"))
                .thenReturn(again);
        sound.look();
        state(engine, Delay.NORMAL, 0, "the sound device is gone");
        sound.look();
        assertThat(problems).containsExactly("", BuiltInSound.NO_DEVICE);
        assertThat(ports.names()).isEmpty();
        verify(engine).close();
        sound.look();
        assertThat(problems).containsExactly("", BuiltInSound.NO_DEVICE, "");
        assertThat(ports.names()).containsExactly(Ports.BUILT_IN);
    }

    @Test
    void anAutomaticDelayGrowsWhenBlocksComeLateAndSaysSo() throws IOException {
        SoundEngine normal = engine(Delay.NORMAL, 0, "");
        SoundEngine safe = engine(Delay.SAFE, 0, "");
        when(opener.open("", Delay.NORMAL, null)).thenReturn(normal);
        when(opener.open("", Delay.SAFE, null)).thenReturn(safe);
        sound.look();
        state(normal, Delay.NORMAL, 2, "");
        sound.look();
        assertThat(said).as("two are no more than a hiccup").isEmpty();
        state(normal, Delay.NORMAL, 5, "");
        sound.look();
        assertThat(said).singleElement().asString().startsWith("Sound is heard 25 ms after it is due now");
        verify(normal).close();
        sound.look();
        assertThat(sound.state().orElseThrow().delay()).isEqualTo(Delay.SAFE);
        assertThat(said).hasSize(1);
    }

    /** A sound device may take a second to open: the window asks and wishes meanwhile. */
    @Test
    void whoWishesDoesNotWaitForWhatIsBeingOpenedAndATroubleEndsNothing() throws Exception {
        CountDownLatch opening = new CountDownLatch(1);
        CountDownLatch wished = new CountDownLatch(1);
        SoundEngine engine = engine(Delay.SAFE, 0, "");
        when(opener.open("", Delay.NORMAL, null)).thenAnswer(call -> {
            opening.countDown();
            assertThat(wished.await(10, TimeUnit.SECONDS)).isTrue();
            throw new OutOfMemoryError("on purpose");
        });
        when(opener.open("", Delay.SAFE, null)).thenReturn(engine);
        sound.start();
        assertThat(opening.await(10, TimeUnit.SECONDS)).isTrue();
        sound.wish(new BuiltInSound.Wish("", Optional.of(Delay.SAFE)));
        assertThat(sound.wish().delay()).contains(Delay.SAFE);
        assertThat(sound.state()).isEmpty();
        wished.countDown();
        for (long end = System.nanoTime() + 10_000_000_000L; sound.state().isEmpty() && System.nanoTime() < end; ) {
            Thread.onSpinWait();
        }
        assertThat(sound.state()).isPresent();
        sound.close();
    }

    @Test
    void aChosenDelayStaysWhateverComesLate() throws IOException {
        SoundEngine engine = engine(Delay.SHORT, 0, "");
        when(opener.open(eq("Studio"), eq(Delay.SHORT), any())).thenReturn(engine);
        sound.wish(new BuiltInSound.Wish("Studio", Optional.of(Delay.SHORT)));
        sound.look();
        state(engine, Delay.SHORT, 100, "");
        sound.look();
        sound.look();
        verify(opener, times(1)).open(any(), any(), any());
        assertThat(said).isEmpty();
    }

    @Test
    void anotherWishThatCannotBeOpenedLeavesWhatIsHeard() throws IOException {
        SoundEngine engine = engine(Delay.NORMAL, 0, "");
        when(opener.open("", Delay.NORMAL, null)).thenReturn(engine);
        when(opener.open("", Delay.SAFE, null)).thenThrow(new IOException("busy"));
        sound.look();
        sound.wish(new BuiltInSound.Wish("", Optional.of(Delay.SAFE)));
        sound.look();
        verify(engine, never()).close();
        assertThat(ports.names()).containsExactly(Ports.BUILT_IN);
        assertThat(problems).containsExactly("");
    }

    @Test
    void eachPartHasAWayForItselfWhichComesAndGoesWithIt() throws IOException {
        SoundEngine engine = engine(Delay.NORMAL, 0, "");
        when(opener.open("", Delay.NORMAL, null)).thenReturn(engine);
        Piece piece = Piece.empty();
        String id = piece.parts().get(0).id();
        sound.parts(piece);
        sound.look();
        verify(engine).part(Voice.builtIn(id));
        assertThat(ports.builtIn()).containsExactlyInAnyOrder(Ports.BUILT_IN, Voice.builtIn(id));
        assertThat(ports.names()).as("under one name").containsExactly(Ports.BUILT_IN);
        sound.parts(piece.withDuplicate(id));
        sound.look();
        assertThat(ports.builtIn()).hasSize(3);
        verify(engine, times(1)).part(Voice.builtIn(id));
        sound.parts(piece.withPart(id, part -> part.withPort("Pier")));
        sound.look();
        assertThat(ports.builtIn()).containsExactly(Ports.BUILT_IN);
        verify(engine, times(3)).freeOver();
    }

    @Test
    void soundsOfAFileAreThereFromTheBeginningAndChangeWhileItPlays() throws IOException {
        SoundBank bank = mock(SoundBank.class);
        SoundEngine engine = engine(Delay.NORMAL, 0, "");
        when(opener.open("", Delay.NORMAL, bank)).thenReturn(engine);
        sound.useSounds(bank);
        sound.look();
        verify(opener).open("", Delay.NORMAL, bank);
        assertThat(ports.takeOpened()).isEqualTo(Ports.BUILT_IN);
        sound.useSounds(null);
        verify(engine).use(null);
        assertThat(ports.takeOpened())
                .as("its parts are told their sounds again")
                .isEqualTo(Ports.BUILT_IN);
    }
}
