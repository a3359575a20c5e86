// Makes the tables that tests of the core compare with, from libraries that know nothing of Harpel.
// Run in this folder: npm install && npm run tables
import { readFileSync, writeFileSync } from "node:fs";
import { Scale, Note, Interval, Chord, Key, Progression, RomanNumeral } from "tonal";
import { parseMidi } from "midi-file";

const target = "../../core/src/test/resources/reference/";
const names = {
  major: "major", minor: "minor", dorian: "dorian", phrygian: "phrygian", lydian: "lydian", mixolydian: "mixolydian",
  locrian: "locrian", "harmonic minor": "harmonic minor", "melodic minor": "melodic minor", "harmonic major": "harmonic major",
  "major pentatonic": "major pentatonic", "minor pentatonic": "minor pentatonic", "major blues": "major blues",
  "minor blues": "minor blues", "phrygian dominant": "phrygian dominant", "lydian dominant": "lydian dominant",
  altered: "altered", "whole tone": "whole tone", diminished: "diminished",
  "half-whole diminished": "half-whole diminished", chromatic: "chromatic",
};
const scales = {};
for (const [ours, theirs] of Object.entries(names)) {
  const scale = Scale.get(theirs);
  if (scale.empty) throw new Error("tonal knows no scale " + theirs);
  scales[ours] = scale.intervals.map((interval) => Interval.semitones(interval));
}
const notes = {};
for (const letter of "CDEFGAB")
  for (const sign of ["", "#", "b", "##", "bb"])
    for (const octave of [-1, 0, 3, 4, 9]) {
      const midi = Note.midi(letter + sign + octave);
      if (midi !== null && midi >= 0 && midi <= 127) notes[letter + sign + octave] = midi;
    }
const qualities = ["", "m", "dim", "aug", "5", "sus2", "sus4", "add9", "madd9", "6", "m6", "6/9", "7", "maj7", "m7", "mMaj7",
  "m7b5", "dim7", "7sus4", "maj7#5", "9", "maj9", "m9", "11", "m11", "13", "7b5", "7#5", "7b9", "7#9"];
const chords = {};
for (const quality of qualities) {
  const chord = Chord.get("C" + quality);
  if (chord.empty) throw new Error("tonal knows no chord C" + quality);
  chords[quality] = chord.intervals.map((interval) => Interval.semitones(interval));
}
// The sevenths on the degrees of every major key, as pitch classes.
const sevenths = {};
for (const root of ["C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"])
  sevenths[root] = Key.majorKey(root).chords.map((name) => Chord.get(name).notes.map((note) => Note.chroma(note)));
// Interval names by semitones: 2m is a minor second, 5P a perfect fifth.
const intervals = {};
for (const name of ["1P", "2m", "2M", "3m", "3M", "4P", "5d", "5P", "6m", "6M", "7m", "7M", "8P"])
  intervals[name] = Interval.semitones(name);
// Roman numerals of chords in a key, with the flats and sharp that are usual for roots outside it.
const romans = {};
for (const [tonic, roots] of [
  ["C", ["C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"]],
  ["G", ["G", "Ab", "A", "Bb", "B", "C", "C#", "D", "Eb", "E", "F", "F#"]],
  ["Eb", ["Eb", "Fb", "F", "Gb", "G", "Ab", "A", "Bb", "Cb", "C", "Db", "D"]],
])
  for (const quality of ["", "m", "7", "maj7", "m7b5"]) {
    const symbols = roots.map((root) => root + quality);
    Progression.toRomanNumerals(tonic, symbols).forEach((roman, i) => (romans[tonic + " " + symbols[i]] = roman));
  }
const frequencies = {};
for (let midi = 0; midi < 128; midi++) frequencies[midi] = Note.freq(Note.fromMidi(midi));
writeFileSync(
  target + "tonal-6.4.3.json",
  JSON.stringify({ scales, notes, chords, sevenths, intervals, romans, frequencies }) + "\n",
);

// What an independent reader finds in files of the demo and in one that Harpel printed.
for (const [file, name] of [
  ["../../demo/tide-table.mid", "tide-table"],
  ["../../demo/lamp-song.mid", "lamp-song"],
  [target + "printed.mid", "printed"],
]) {
  const midi = parseMidi(readFileSync(file));
  const events = [];
  for (const track of midi.tracks) {
    let tick = 0;
    for (const event of track) {
      tick += event.deltaTime;
      if (event.type === "noteOn") events.push([tick, "on", event.channel, event.noteNumber, event.velocity]);
      if (event.type === "noteOff") events.push([tick, "off", event.channel, event.noteNumber, event.velocity]);
      if (event.type === "setTempo") events.push([tick, "tempo", event.microsecondsPerBeat]);
      if (event.type === "timeSignature") events.push([tick, "meter", event.numerator, event.denominator]);
      if (event.type === "endOfTrack") events.push([tick, "end"]);
    }
  }
  const text = "[\n" + events.map((event) => JSON.stringify(event)).join(",\n") + "\n]\n";
  writeFileSync(target + name + "-midi-file-1.2.4.json", text);
}

// The notes of chords by numeral in all keys: a degree of the key, or, with a sign in front, of the major scale on its root.
const tonics = ["C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"];
const capitals = { "": "M", 7: "7", maj7: "maj7", sus4: "sus4", 6: "6", 9: "9", add9: "Madd9", "+": "aug" };
const small = { "": "m", 7: "m7", maj7: "mMaj7", "°": "dim", "ø": "m7b5", "°7": "dim7", 6: "m6", 9: "m9" };
const signed = [
  ["b", "II", "", "M"],
  ["b", "III", "maj7", "maj7"],
  ["b", "VI", "", "M"],
  ["b", "VII", "", "M"],
  ["b", "VII", "7", "7"],
  ["#", "iv", "°", "dim"],
];
const numerals = [];
for (const mode of ["major", "minor"]) {
  for (const tonic of tonics) {
    const add = (numeral, root, quality) => {
      const chroma = Chord.getChord(quality, root).notes.map((note) => Note.chroma(note));
      numerals.push([`${tonic} ${mode}`, numeral, [...new Set(chroma)].join(" ")].join("|"));
    };
    ["I", "II", "III", "IV", "V", "VI", "VII"].forEach((degree, i) => {
      const root = Scale.get(`${tonic} ${mode}`).notes[i];
      for (let k = 0; k < 4; k++) {
        const large = Object.keys(capitals)[(i * 2 + k) % 8];
        add(degree + large, root, capitals[large]);
        const little = Object.keys(small)[(i * 3 + k) % 8];
        add(degree.toLowerCase() + little, root, small[little]);
      }
    });
    for (const [sign, degree, suffix, quality] of signed) {
      const interval = RomanNumeral.get(sign + degree.toUpperCase()).interval;
      add(sign + degree + suffix, Note.transpose(tonic, interval), quality);
    }
  }
}
writeFileSync(target + "numerals-tonal-6.4.3.txt", numerals.join("\n") + "\n");
