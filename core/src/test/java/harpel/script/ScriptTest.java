package harpel.script;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.format.ChainFile;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.plan.Plan;
import harpel.run.Renderer;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.testkit.Guide;
import harpel.testkit.Heard;
import harpel.testkit.Played;
import harpel.theory.Key;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Scripts: the guide's examples as printed, the interface, the sandbox. */
class ScriptTest {
    private static Stage stage(String code) {
        return Stage.of("script", EffectCatalog.of("script")).with(Script.CODE, code);
    }

    private static Played played(String code) {
        return Played.through(Chain.EMPTY.plus(0, stage(code)));
    }

    private static Played example(String title) {
        return played(Guide.script(title));
    }

    @Test
    void theGuideHasEightExamplesWithoutAnError() {
        assertThat(Guide.scripts())
                .hasSize(8)
                .allSatisfy(code -> assertThat(Script.problem(code)).isEmpty());
    }

    @Test
    void aFifthAbove() {
        // Common practice: a fifth is seven semitones.
        List<Heard> notes = example("A fifth above").note("C4", 0, 1.5).bars(1);
        assertThat(notes).containsExactly(new Heard(0, 1.5, 60, 100, 1), new Heard(0, 1.5, 67, 100, 1));
    }

    @Test
    void fadingRepeats() {
        List<Heard> notes = example("Fading repeats").note("C4", 0, 0.25).bars(1);
        assertThat(notes).extracting(Heard::velocity).containsExactly(100, 60, 36, 22);
        assertThat(notes).extracting(Heard::beat).containsExactly(0.0, 0.5, 1.0, 1.5);
        assertThat(notes).extracting(Heard::length).containsExactly(0.25, 0.5, 0.5, 0.5);
    }

    @Test
    void everyOtherNoteAnOctaveUp() {
        Played played = example("Every other note an octave up");
        for (int i = 0; i < 4; i++) {
            played.note("C4", i, 0.5);
        }
        assertThat(played.pitches(1)).containsExactly(60, 72, 60, 72);
        assertThat(played.pitches(1)).as("its state is new with each start").containsExactly(60, 72, 60, 72);
    }

    @Test
    void aThirdInTheKey() {
        assertThat(example("A third in the key")
                        .note("D4", 0, 1)
                        .note("C#4", 1, 1)
                        .pitches(1))
                .containsExactly(62, 65);
    }

    @Test
    void loudNotesBringTheBass() {
        assertThat(example("Loud notes bring the bass")
                        .note("C4", 0, 1, 90)
                        .note("C4", 2, 1, 110)
                        .bars(1))
                .extracting(Heard::pitch, Heard::length)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(60, 1.0),
                        org.assertj.core.groups.Tuple.tuple(48, 2.0),
                        org.assertj.core.groups.Tuple.tuple(60, 1.0));
    }

    @Test
    void aWanderingLineStaysWithinReachAndRepeats() {
        Played line = example("A wandering line").note("C4", 0, 16);
        List<Integer> pitches = line.pitches(4);
        assertThat(pitches).hasSize(32).allMatch(pitch -> pitch >= 60 && pitch <= 69);
        for (int i = 1; i < pitches.size(); i++) {
            assertThat(Math.abs(pitches.get(i) - pitches.get(i - 1))).isLessThanOrEqualTo(2);
        }
        assertThat(line.pitches(4)).isEqualTo(pitches);
        assertThat(line.variation(9).pitches(4)).isNotEqualTo(pitches);
    }

    @Test
    void aChordForEachKeyStrummed() {
        List<Heard> notes =
                example("A chord for each key, strummed").note("D4", 0, 2).bars(1);
        // Dm7 is D F A C; four strings over 60 ms, at 120 bpm 0.04 beats apart.
        assertThat(notes).extracting(Heard::pitch).containsExactly(50, 53, 57, 60);
        assertThat(notes).extracting(Heard::velocity).containsExactly(100, 94, 88, 82);
        assertThat(notes.get(3).beat()).isCloseTo(0.12, org.assertj.core.data.Offset.offset(1e-4));
        assertThat(notes).extracting(Heard::length).containsOnly(2.0);
    }

    @Test
    void aDrummerWithRules() {
        List<Heard> notes = example("A drummer with rules").bars(4);
        // General MIDI 1 percussion: 38 is the acoustic snare; common practice: the backbeat is beats 2 and 4.
        assertThat(notes).extracting(Heard::channel).containsOnly(10);
        assertThat(notes.stream()
                        .filter(note -> note.pitch() == 38 && note.beat() < 12)
                        .map(Heard::beat))
                .containsExactly(1.0, 3.0, 5.0, 7.0, 9.0, 11.0);
        assertThat(notes.stream().filter(note -> note.beat() >= 15).map(Heard::pitch))
                .as("a fill in the last beat of every fourth bar")
                .containsExactly(38, 47, 38, 47);
    }

    @Test
    void controlsAreParameters() throws Exception {
        String chain =
                "{\"harpel\":1,\"chain\":[{\"effect\":\"script\",\"code\":\"const up = control('up', {low: 0, high: 24,"
                        + " value: 12}); function onNote(n) { play(n, {pitch: n.pitch + up.value}); }\",\"up\":5,"
                        + "\"move\":{\"up\":[{\"by\":\"velocity\",\"range\":[90,100],\"amount\":50}]}}]}";
        ChainFile file = ChainFile.read(chain);
        assertThat(file.write()).contains("\"up\": 5");
        assertThat(ChainFile.read(file.write())).isEqualTo(file);
        assertThat(Played.through(file.chain())
                        .note("C4", 0, 1, 50)
                        .note("C4", 1, 1, 127)
                        .pitches(1))
                .containsExactly(65, 77);
        assertThatThrownBy(() -> ChainFile.read(chain.replace("\"up\":5", "\"up\":99")))
                .hasMessageContaining("chain[0].up: must be 0–24 but was 99");
        assertThatThrownBy(() -> ChainFile.read(chain.replace("\"up\":5", "\"down\":5")))
                .hasMessageContaining("down");
    }

    @Test
    void everyKindOfControlIsRead() {
        Stage stage =
                stage("const a = control('a', {low: 0, high: 1, step: 0.1, value: 0.5}); control('b', {value: true});"
                        + "control('c', {choices: ['up','down'], value: 'down'}); control('d', {value: '1/8d'});"
                        + "control('e', {note: true, value: 62}); function onNote(n) {}");
        assertThat(Script.problem(stage.params().get(Script.CODE))).isEmpty();
        assertThat(stage.params().spec().ids()).startsWith("a, b, c, d, e, code");
        assertThat(stage.params().spec().byId("c").orElseThrow().show(stage.params()))
                .isEqualTo("down");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "function onNote(note) {\n  play(note;\n}",
                "const a = 1;\nplay({pitch: 60, length: 1});",
                "let x = 10n;\n x = 2n;",
                "control('on', {});",
                "control('Up', {});",
                "control('up', {low: 5, high: 5});",
                "every('soon');",
                "noSuchThing();",
                "while (true) {}",
            })
    void anErrorInTheTextNamesItsLine(String code) {
        assertThat(Script.problem(code)).matches("(?s)line \\d+(, column \\d+)?: .+");
        assertThat(played(code).note("C4", 0, 1).pitches(1)).as("notes pass").containsExactly(60);
    }

    /** Plays two notes a bar apart through a script that does what it must not with the first, and hears what was said. */
    private static List<String> misuse(String code, List<Heard> notes) {
        return misuse(code, 2, notes);
    }

    private static List<String> misuse(String code, int count, List<Heard> notes) {
        List<String> said = new ArrayList<>();
        List<Event> heard = new ArrayList<>();
        Tap tap = told -> {
            if (told instanceof Told.Said one) {
                said.add(one.text());
            }
        };
        Plan plan = Plan.ofChain("lead", Chain.EMPTY.plus(0, stage(code)), Key.C_MAJOR, TimeMap.DEFAULT, 1);
        Renderer renderer = new Renderer(plan, (part, event) -> heard.add(event), tap);
        for (int i = 0; i < count; i++) {
            NoteStart note = NoteStart.played(i * 4L * Ticks.PER_QUARTER, i, 0, 60 + i, 100);
            renderer.play("lead", note);
            renderer.play("lead", NoteEnd.plain(note.tick() + Ticks.PER_QUARTER, note));
        }
        renderer.render(4L * count * Ticks.PER_QUARTER);
        assertThat(renderer.isQuiet()).isTrue();
        notes.addAll(Heard.of(heard));
        return said;
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "while (true) {}",
                "try { while (true) {} } catch (e) {} finally { }",
                "for (;;) { try { for (;;) {} } catch (e) { } }",
                "function f() { return f() + 1; } f();",
                "let a = []; while (true) { a.push(new Array(10000).fill(1)); }",
                "/^(a+)+$/.test('aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaab');",
                "[3, 1, 2].sort(function (a, b) { while (true) {} });",
                "[...{[Symbol.iterator]() { return {next: Object}; }}];",
                "let it = [1].values(); it.next = Object; [...it];",
                "'aaaaaaaaaa'.repeat(1000).replace(/a/g, () => 'b'.repeat(1000))",
                "let a = [1]; for (let i = 0; i < 60; i++) { a = [a, a]; } String(a)",
                "let a = new Array(100000); for (let i = 0; i < 100; i++) { a.indexOf(7); }",
            })
    void aScriptThatTakesTooMuchIsSwitchedOffAndTheMusicGoesOn(String misdeed) {
        List<Heard> notes = new ArrayList<>();
        List<String> said = misuse("function onNote(note) {\n  play(note);\n  " + misdeed + "\n}", notes);
        assertThat(said).hasSize(1);
        assertThat(said.get(0)).contains("switched off");
        assertThat(notes).extracting(Heard::pitch).as("both notes pass").containsExactly(60, 61);
    }

    /** Whatever holds it: a variable, a closure, a map, a set, a function that waits, a text that grows. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "let all = [];\nfunction onNote(note) { for (let i = 0; i < 20; i++) { all.push('x'.repeat(90000) + i); } }",
                "let last = null;\nfunction onNote(note) { for (let i = 0; i < 20000; i++) { let before = last; last = () => before; } }",
                "let map = new Map();\nfunction onNote(note) { for (let i = 0; i < 9000; i++) { map.set(map.size, [i, i]); } }",
                "let set = new Set();\nfunction onNote(note) { for (let i = 0; i < 9000; i++) { set.add({i: i}); } }",
                "function* keeps() { let all = []; while (true) { all.push((yield 1)); } }\nlet it = keeps(); it.next();\n"
                        + "function onNote(note) { for (let i = 0; i < 5000; i++) { it.next({i: [i]}); } }",
                "let own = {};\nlet n = 0;\nfunction onNote(note) { for (let i = 0; i < 9000; i++) { own['k' + n++] = i; } }",
            })
    void aScriptThatKeepsTooMuchIsSwitchedOffAtTheSameNoteEachTime(String code) {
        List<Integer> switchedOff = new ArrayList<>();
        for (int run = 0; run < 2; run++) {
            List<Heard> notes = new ArrayList<>();
            List<String> said = misuse(code, 60, notes);
            switchedOff.add(notes.size());
            assertThat(said).as(code).hasSize(1);
            assertThat(said.get(0)).matches(".*(keeps more than 8 MB|steps in one call); the script was switched off");
        }
        assertThat(switchedOff.get(0)).isEqualTo(switchedOff.get(1));
    }

    @Test
    void aScriptThatMakesMuchAndKeepsLittleGoesOn() {
        List<Heard> notes = new ArrayList<>();
        List<String> said = misuse(
                "let last = [];\nfunction onNote(note) {\n  for (let i = 0; i < 20; i++) { last = new Array(9000).fill(i); }\n  play(note);\n}",
                60,
                notes);
        assertThat(said).isEmpty();
        assertThat(notes).hasSize(60);
    }

    /** A thousand notes of 400,000 steps each would be minutes; whoever cancels waits for no call to come back. */
    @Test
    void aPrintIsCancelledWhileItWaitsForAScript() throws Exception {
        Chain chain = Chain.EMPTY.plus(
                0, stage("function onNote(note) { let a = 0; while (a < 20000) { a = a + 1; } play(note); }"));
        List<Event> input = new ArrayList<>();
        for (int i = 0; i < 1_000; i++) {
            NoteStart note = NoteStart.played(i * Ticks.PER_QUARTER, i, 0, 60, 100);
            input.add(note);
            input.add(NoteEnd.plain(note.tick() + 1, note));
        }
        Thread printing = Thread.currentThread();
        Tap tap = told -> {
            if (told instanceof Told.Worked) {
                printing.interrupt();
            }
        };
        PrintJob job =
                new PrintJob(Plan.ofChain("lead", chain, Key.C_MAJOR, TimeMap.DEFAULT, 1), "lead", Tail.STOP, tap);
        assertThatThrownBy(() -> job.print(input, 1_000L * Ticks.PER_QUARTER)).isInstanceOf(InterruptedException.class);
        assertThat(Thread.interrupted()).as("it is told, and not swallowed").isTrue();
    }

    @Test
    void theLineOfALoopWithoutEndIsNamed() {
        assertThat(misuse(
                                "function onNote(note) {\n  play(note);\n  let i = 0;\n  while (true) {\n    i++;\n  }\n}",
                                new ArrayList<>())
                        .get(0))
                .matches(
                        "line [45]: the script (took more than 500000 steps|worked longer than 3 s) in one call; the script was switched off");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "java.lang.System.exit(1)",
                "Packages.java.io.File('x')",
                "new java.net.Socket()",
                "getClass()",
                "note.getClass().forName('java.lang.Runtime')",
                "play.constructor('return this')()",
                "(function () {}).constructor('return 1')()",
                "(() => 1).constructor('return 1')()",
                "(function* () {}).constructor('yield 1')()",
                "eval('1')",
                "new Date()",
                "new Array(300000000).fill(0)",
                "Array.from({length: 1000000000})",
                "Array.prototype.join.call({length: 400000000}, 'x')",
                "let a = []; a.length = 400000000; a.join('x')",
                "let b = []; b[4000000000] = 1; [...b]",
                "'x'.repeat(536870912)",
                "'x'.padEnd(1e9)",
                "new Uint8Array(2000000000)",
                "Math.max.apply(null, {length: 1e9})",
                "setTimeout(function () {}, 1)",
                "load('/etc/passwd')",
                "new Set({[Symbol.iterator]() { return {next: Object}; }})",
                "Array.prototype.indexOf.call({get length() { return 1e9; }}, 1)",
                "JSON.stringify([1])",
                "let s = 'x'; for (let i = 0; i < 26; i++) { s = s + s; } encodeURIComponent(s)",
                "let s = 'x'; for (let i = 0; i < 22; i++) { s = s + s; } log(s.indexOf('y'))",
                "let n = 0; 'x'.repeat({valueOf() { n++; return n > 1 ? 1e9 : 1e6; }})",
                "'aaaaaaaaaa'.repeat(1000).replace(/a/g, 'b'.repeat(1000))",
                "Array.prototype.push = 1; throw new Error('sealed')",
                "importPackage(1)",
                "new Promise(function () {})",
            })
    void nothingOfTheOutsideIsWithinReach(String attempt) {
        List<Heard> notes = new ArrayList<>();
        List<String> said = misuse("function onNote(note) {\n  " + attempt + ";\n}", notes);
        assertThat(said).as(attempt).isNotEmpty();
        assertThat(said.get(0)).startsWith("line 2").doesNotContain("switched off");
        assertThat(notes).extracting(Heard::pitch).containsExactly(60, 61);
    }

    /** A loop that ends just about where the budget does: it is switched off, or not, at the same note each time. */
    @Test
    void whatSwitchesAScriptOffIsTheSameEachTime() {
        String code =
                "let n = 0;\nfunction onNote(note) {\n  n++;\n  for (let i = 0; i < n * 3000; i++) {}\n  play(note, {pitch: 72});\n}";
        List<List<Integer>> runs = new ArrayList<>();
        for (int run = 0; run < 4; run++) {
            Played played = played(code);
            for (int i = 0; i < 40; i++) {
                played.note("C4", i * 0.25, 0.125);
            }
            runs.add(played.pitches(3));
        }
        assertThat(runs.get(0)).contains(72, 60);
        assertThat(runs).containsOnly(runs.get(0));
    }

    @Test
    void scriptsSeeNothingOfOneAnotherNorOfTheEngine() {
        List<Heard> notes = new ArrayList<>();
        misuse("function onNote(note) { /(se)(cret)/.exec('secret'); play(note); }", notes);
        String code = "function onNote(note) { play(note, {pitch: RegExp.$1 === 'se' ? 1 : 70}); }";
        assertThat(played(code).note("C4", 0, 1).pitches(1)).containsExactly(70);
        String hostile = "const c = control('up', {value: 5});"
                + "try { Object.defineProperty(c, 'value', {set(v) { while (true) {} }}); } catch (e) {}"
                + "try { Object.prototype.pitch = 3; } catch (e) {}"
                + "function onNote(note) { play(note, {pitch: 60 + c.value}); }";
        assertThat(played(hostile).note("C4", 0, 1).pitches(1)).containsExactly(65);
        assertThat(played("Object.defineProperty(this, 'onStep', {get() { while (true) {} }}); every('1/4');")
                        .note("C4", 0, 1)
                        .pitches(1))
                .as("what never comes back is no script")
                .containsExactly(60);
    }

    @Test
    void aPaceThatNoStepCanHaveIsAComplaintAndNothingElse() {
        List<Heard> notes = new ArrayList<>();
        String code =
                "const pace = control('pace', {low: 0, high: 1, step: 0.1, value: 0}); every(pace); function onStep(i) {}";
        assertThat(misuse(code, notes)).singleElement().asString().contains("above 0");
        assertThat(notes).extracting(Heard::pitch).containsExactly(60, 61);
        assertThat(Script.problem("every(1e-9)")).contains("at least 0.01 beat");
    }

    @Test
    void anErrorInACallIsSaidOnceAndItsNotePasses() {
        List<Heard> notes = new ArrayList<>();
        List<String> said = misuse("function onNote(note) {\n  play(note, {pitch: note.pich + 1});\n}", notes);
        assertThat(said).containsExactly("line 2: pitch must be a number but was NaN");
        assertThat(notes).extracting(Heard::pitch).containsExactly(60, 61);
    }

    @Test
    void theLastGoodScriptGoesOnWhileTheTextHasAnError() {
        List<Event> heard = new ArrayList<>();
        Stage good = stage("function onNote(n) { play(n, {pitch: 72}); }");
        Renderer renderer = new Renderer(plan(good), (part, event) -> heard.add(event), Tap.NONE);
        Stage broken = good.with(Script.CODE, "function onNote(n) { play(n, }");
        renderer.update(plan(broken));
        renderer.start(0);
        renderer.play("lead", NoteStart.played(0, 0, 0, 60, 100));
        renderer.render(10);
        renderer.update(plan(broken.with(Script.CODE, "function onNote(n) { play(n, {pitch: 74}); }")));
        renderer.play("lead", NoteStart.played(10, 1, 0, 60, 100));
        renderer.render(20);
        renderer.silence();
        assertThat(heard.stream().filter(NoteStart.class::isInstance).map(event -> ((NoteStart) event).pitch()))
                .containsExactly(72, 74);
    }

    private static Plan plan(Stage stage) {
        return Plan.ofChain("lead", Chain.EMPTY.plus(0, stage), Key.C_MAJOR, TimeMap.DEFAULT, 1);
    }

    @Test
    void aBrokenScriptsControlsAreKeptInTheFile() throws Exception {
        String broken = "{\"harpel\":1,\"chain\":[{\"effect\":\"script\",\"code\":\"control('up' {\",\"up\":5}]}";
        ChainFile file = ChainFile.read(broken);
        assertThat(file.write()).contains("\"up\": 5");
        assertThat(file.chain().stages().get(0).unknown()).isEqualTo(Map.of("up", 5));
    }

    @Test
    void notesCanBeStoppedControllersKeptBackAndStepsAskedFor() {
        String code = "every('1/4'); let last = null;"
                + "function onNote(n) {}"
                + "function onController(number, value) { if (number === 1) { controller(11, value); return false; } }"
                + "function onStep(i) { if (last) stop(last); last = i < 3 ? play({pitch: 60 + i, length: 8}) : null; }";
        List<Event> events = played(code).control(1, 99, 0).control(7, 50, 1).events(1);
        assertThat(Heard.of(events))
                .containsExactly(new Heard(0, 1, 60, 100, 1), new Heard(1, 1, 61, 100, 1), new Heard(2, 1, 62, 100, 1));
        assertThat(events.stream().filter(Message.class::isInstance).map(event -> ((Message) event).data(1)))
                .containsExactly(11, 7);
    }

    @Test
    void ancestryLeadsFromWhatAScriptPlaysToTheKey() {
        List<Event> events = example("A fifth above").note("C4", 0, 1).events(1);
        assertThat(events.stream()
                        .filter(NoteStart.class::isInstance)
                        .map(event -> ((NoteStart) event).origin().pitch()))
                .containsExactly(60, 60);
    }

    @Test
    void theLanguageIsWhatTheGuideSays() {
        assertThat(Script.problem("let f = (a, b = 2) => a + b; const [x, y] = [1, 2]; const {p} = {p: 3};"
                        + "function* g() { yield 1; } const m = new Map([[1, 2]]); const s = `${x}`; let q = m?.get(1) ?? 0;"
                        + "for (let i of [1, 2]) { q += i; } const z = [...[1, 2], 3];"))
                .isEmpty();
        assertThat(Script.problem("class A {}")).isNotEmpty();
    }
}
