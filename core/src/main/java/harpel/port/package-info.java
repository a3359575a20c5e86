/**
 * The protocol at the edge: what comes in and what goes out, in queues with a bound, so that nobody waits and nothing hangs. Begin with
 * {@link harpel.port.EdgeQueue}. It knows no device and no engine. Null is never taken and never given unless a method says so.
 */
package harpel.port;
