package sharpkestrel.app.viewer;

import javafx.scene.paint.Color;

/** Colours by which classes and places are told apart, also by the colour-blind (Okabe and Ito 2008). */
public final class Palette {

  private static final Color[] COLOURS = {
    Color.web("#E69F00"),
    Color.web("#56B4E9"),
    Color.web("#009E73"),
    Color.web("#CC79A7"),
    Color.web("#F0E442"),
    Color.web("#D55E00"),
    Color.web("#0072B2"),
    Color.web("#999999")
  };

  private Palette() {}

  public static Color of(int number) {
    return COLOURS[Math.floorMod(number, COLOURS.length)];
  }

  /** A colour as the compositor blends it over the picture. */
  public static int argb(int alpha, Color colour) {
    return alpha << 24
        | (int) Math.round(255 * colour.getRed()) << 16
        | (int) Math.round(255 * colour.getGreen()) << 8
        | (int) Math.round(255 * colour.getBlue());
  }
}
