/** Where pixels lie on the ground. */
package sharpkestrel.place;
