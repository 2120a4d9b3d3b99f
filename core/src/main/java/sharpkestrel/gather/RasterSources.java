package sharpkestrel.gather;

import java.nio.file.Path;
import java.util.List;
import java.util.function.UnaryOperator;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.step.Sources;

/** A raster file and what lies beside it. */
public final class RasterSources implements Sources {

  @Override
  public List<Path> of(Path named, UnaryOperator<String> settings) {
    return RasterFiles.readWith(named);
  }
}
