/**
 * What is heard and what is seen of it. Begin with {@link harpel.app.transport.Transport}; {@link harpel.app.transport.TraceStore} keeps
 * what each place of a chain let through, {@link harpel.app.transport.Words} says what a stage did.
 */
package harpel.app.transport;
