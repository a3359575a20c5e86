/** The kinds of values that speak of music: times, intervals, scales, tables of pitches and chords, and where notes go. */
package harpel.param.music;
