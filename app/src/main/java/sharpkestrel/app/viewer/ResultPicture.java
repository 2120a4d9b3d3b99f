package sharpkestrel.app.viewer;

import java.awt.image.BufferedImage;
import java.nio.file.Path;
import javax.imageio.ImageIO;
import sharpkestrel.app.model.Look;
import sharpkestrel.check.Scores;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.io.AtomicFile;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;

/** A picture of a whole scene with outlines over it, drawn as the window draws them, without a window. */
public final class ResultPicture {

  private static final int WIDEST = 2400;

  private ResultPicture() {}

  /**
   * Writes a PNG: the scene in natural colour, outlines that agree with the truth green, wrong ones ochre, missed ones
   * red.
   *
   * @param scene placed, on the system of the outlines
   */
  public static void write(Raster scene, OutlineSet found, Scores scores, Path file) {
    int level = 0;
    while (scene.grid().atLevel(level).width() > WIDEST && level < scene.levels() - 1) {
      level++;
    }
    Grid grid = scene.grid().atLevel(level);
    int width = grid.width();
    int height = grid.height();
    int[] bands = Look.NATURAL.bandsOf(scene);
    Stretch stretch = StretchSample.of(scene, bands, scene.grid().window()).stretch(Look.NATURAL);
    float[][] planes = ImageTiles.read(scene, bands, level, grid.window(), Request.BACKGROUND);
    Compositor compositor = new Compositor();
    compositor.begin(width, height);
    stretch.colour(planes, width, height, compositor.pixels(), width);
    Affine down = new Affine(1, 0, 0, 0, -1, 0);
    Affine worldToScreen = grid.affine().inverse().after(down);
    for (Drawing.Drawn drawn : Drawings.agreement(found, scores).outlines()) {
      compositor.drawOutlines(
          PaneLayer.turned(drawn.outlines(), scene, 1),
          worldToScreen,
          drawn.colour(),
          0,
          0,
          width,
          height);
    }
    BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
    image.setRGB(0, 0, width, height, compositor.pixels(), 0, width);
    AtomicFile.write(file, temporary -> ImageIO.write(image, "png", temporary.toFile()));
  }
}
