package sharpkestrel.app.project;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.Layer;
import sharpkestrel.raster.RasterException;

/**
 * A GeoPackage in the project's folder {@code hand}: what was drawn or picked and is no result yet. It is written behind the
 * work after each change.
 */
public final class HandFile {

  private final Workspace workspace;
  private final String name;

  public HandFile(Workspace workspace, String name) {
    this.workspace = workspace;
    this.name = name;
  }

  public Path path() {
    return workspace.folder().resolve("hand").resolve(name + ".gpkg");
  }

  public void write(Layer layer) {
    behind(path -> {
      Files.createDirectories(path.getParent());
      GeoPackage.write(layer, path);
    });
  }

  public void delete() {
    behind(Files::deleteIfExists);
  }

  /** What was kept; what cannot be read is told, and is as if there were none. */
  public Optional<Layer> read() {
    Path path = path();
    if (Files.isRegularFile(path)) {
      try {
        return Optional.of(GeoPackage.read(path, ""));
      } catch (RasterException damaged) {
        workspace.messages().tell(damaged.getMessage());
      }
    }
    return Optional.empty();
  }

  private interface Work {
    void on(Path path) throws IOException;
  }

  private void behind(Work work) {
    if (workspace.isLookingOn()) {
      return;
    }
    Path path = path();
    workspace.lanes().save().write(path, () -> work.on(path));
  }
}
