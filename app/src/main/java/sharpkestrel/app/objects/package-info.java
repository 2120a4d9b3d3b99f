/** What is seen of objects that have a table: the table itself, plots of features, the card of the one that is picked. */
package sharpkestrel.app.objects;
