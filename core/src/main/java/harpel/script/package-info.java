/**
 * Effects that a user writes in JavaScript. {@link harpel.script.Script} is the kind; a {@link harpel.script.ScriptSource} is a text
 * that was compiled once, a {@link harpel.script.ScriptInstance} one run of it with a state of its own. Scripts run in a
 * {@link harpel.script.Sandbox} on a {@link harpel.script.ScriptThread}, never on the engine's.
 */
package harpel.script;
