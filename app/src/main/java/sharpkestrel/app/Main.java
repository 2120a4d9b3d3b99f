package sharpkestrel.app;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import javafx.application.Application;
import sharpkestrel.app.viewer.ResultPicture;
import sharpkestrel.app.work.Background;
import sharpkestrel.check.Scores;
import sharpkestrel.demo.DemoData;
import sharpkestrel.demo.Survey;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;

/** Entry of the window; without a display the demo runs its sheet and writes a picture instead. */
public final class Main {

  private static final int HEADLESS_SIZE = 2048;
  private static final Path SHEET = Path.of("docs/examples/metal-roofs.json");

  private Main() {}

  public static void main(String[] args) {
    try {
      // Without a display the smaller survey: nobody watches it.
      boolean headless = Boolean.getBoolean("kestrel.headless");
      int size = headless ? HEADLESS_SIZE : DemoData.DEFAULT_SIZE;
      Survey.Order order = DemoOptions.order(List.of(args), size);
      if (headless) {
        System.exit(headless(order));
      }
      Thread.ofPlatform().daemon().name("kestrel-start").start(() -> {
        Background.compilersStandBack();
        if (args.length > 0 && args[0].equals("demo")) {
          DemoSession.readAhead(order);
        }
      });
    } catch (RasterException wrong) {
      System.err.println("kestrel: " + wrong.getMessage());
      System.exit(1);
    }
    Application.launch(KestrelApp.class, args);
  }

  private static int headless(Survey.Order order) {
    Path folder = DemoData.home().resolve("runs/demo");
    try {
      Map<String, Object> results =
          sharpkestrel.cli.Main.run(SHEET, Map.of("survey", DemoData.text(order)), folder);
      Path picture = folder.resolve("metal-roofs.png");
      ResultPicture.write(
          (Raster) results.get("sharp"),
          (OutlineSet) results.get("roofs"),
          (Scores) results.get("check"),
          picture);
      System.out.println("Outlines: " + folder.resolve("metal-roofs.gpkg"));
      System.out.println("Picture:  " + picture + "  (agreed green, wrong ochre, missed red)");
      return 0;
    } catch (RasterException wrong) {
      System.err.println("kestrel: " + wrong.getMessage());
      return 1;
    }
  }
}
