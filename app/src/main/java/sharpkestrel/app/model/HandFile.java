package sharpkestrel.app.model;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import sharpkestrel.io.GeoPackage;
import sharpkestrel.io.Layer;
import sharpkestrel.raster.RasterException;

/**
 * A GeoPackage in the project's folder {@code hand}: what was drawn or picked and is no result yet. It is written behind the
 * work after each change.
 */
final class HandFile {

  private final Workspace workspace;
  private final String name;

  HandFile(Workspace workspace, String name) {
    this.workspace = workspace;
    this.name = name;
  }

  Path path() {
    return workspace.folder().resolve("hand").resolve(name + ".gpkg");
  }

  void write(Layer layer) {
    behind(path -> {
      Files.createDirectories(path.getParent());
      GeoPackage.write(layer, path);
    });
  }

  void delete() {
    behind(Files::deleteIfExists);
  }

  /** What was kept; what cannot be read is told, and is as if there were none. */
  Optional<Layer> read() {
    Path path = path();
    if (Files.isRegularFile(path)) {
      try {
        return Optional.of(GeoPackage.read(path, ""));
      } catch (RasterException damaged) {
        workspace.messageProperty().set(damaged.getMessage());
      }
    }
    return Optional.empty();
  }

  private interface Work {
    void on(Path path) throws IOException;
  }

  private void behind(Work work) {
    Path path = path();
    workspace
        .tasks()
        .quietly(
            () -> {
              try {
                work.on(path);
              } catch (IOException failed) {
                throw new RasterException(
                    path + " could not be changed: " + failed.getMessage(), failed);
              }
            },
            workspace.messageProperty()::set);
  }
}
