/** Asking for files: where the last of that kind was, with the ending it needs; and work with files that may take as long as a disk likes. */
package harpel.app.file;
