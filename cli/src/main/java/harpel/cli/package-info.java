/** The command line: {@link harpel.cli.Main} and one class a command. */
package harpel.cli;
