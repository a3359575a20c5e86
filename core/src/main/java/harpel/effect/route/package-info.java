/** Effects that send notes different ways. */
package harpel.effect.route;
