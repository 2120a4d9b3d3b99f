/** Results for the next person: files of open formats. */
package sharpkestrel.deliver;
