package sharpkestrel.gather;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.io.StacItem;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Sources;

/** The item of a delivery, its parts with what lies beside each, and the text of its sensor model. */
public final class DeliverySources implements Sources {

  @Override
  public List<Path> of(Path named, UnaryOperator<String> settings) {
    List<Path> all = new ArrayList<>(List.of(named));
    List<Path> parts;
    try {
      parts = Files.isDirectory(named)
          ? Assemble.rasterFiles(named)
          : StacItem.read(named).assets().stream().map(StacItem.Asset::path).toList();
    } catch (RasterException unreadable) {
      // whoever runs the step is told
      return all;
    }
    for (Path part : parts) {
      all.addAll(RasterFiles.isNamed(part) ? RasterFiles.readWith(part) : List.of(part));
    }
    Path folder = Files.isDirectory(named) ? named : named.toAbsolutePath().getParent();
    all.add(folder.resolve(settings.apply("image") + "_RPC.TXT"));
    return all;
  }
}
