/**
 * What a piece is compiled to before it is played: values that any thread may read. Begin with {@link harpel.plan.Program}: the
 * {@link harpel.plan.Plan} of stages and routes, a {@link harpel.plan.Line} of what each part plays of itself, and a
 * {@link harpel.plan.Patch} of where parts sound.
 */
package harpel.plan;
