package sharpkestrel.app.viewer;

import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.scene.image.Image;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import sharpkestrel.app.model.Look;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.work.Lanes;
import sharpkestrel.raster.Raster;

/** Small pictures of results for the trail, made one after the other in the background. */
public final class Thumbnails {

  public static final int WIDTH = 44;
  public static final int HEIGHT = 30;

  private Thumbnails() {}

  public static void make(Result result, Consumer<Image> ready) {
    Raster raster = result.backdrop();
    if (raster == null) {
      return;
    }
    Lanes.view().thumbnails().execute(() -> {
      try {
        int[] bands = Look.NATURAL.bandsOf(raster);
        Stretch stretch =
            StretchSample.of(raster, bands, raster.grid().window()).stretch(Look.NATURAL);
        int[] pixels = ImageTiles.thumbnail(raster, bands, stretch, WIDTH, HEIGHT);
        WritableImage image = new WritableImage(WIDTH, HEIGHT);
        image
            .getPixelWriter()
            .setPixels(0, 0, WIDTH, HEIGHT, PixelFormat.getIntArgbInstance(), pixels, 0, WIDTH);
        Platform.runLater(() -> ready.accept(image));
      } catch (RuntimeException none) {
        // a result that cannot be drawn keeps its empty frame; its own message tells why
      }
    });
  }
}
