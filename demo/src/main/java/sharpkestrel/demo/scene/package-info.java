/** Light on its way: what a ray meets, how that is lit, and the numbers a scene is made of. */
package sharpkestrel.demo.scene;
