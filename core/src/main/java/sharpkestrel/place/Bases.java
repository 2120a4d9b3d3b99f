package sharpkestrel.place;

import java.util.Optional;
import sharpkestrel.geo.GridModel;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.geo.InSystem;
import sharpkestrel.geo.Rpc;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;

/** What a scene says of itself about where it lies. */
public final class Bases {

  private Bases() {}

  /**
   * @throws RasterException where a scene has no RPC; the message says what can be done
   */
  static Rpc requireRpc(Raster scene, Job job) {
    Rpc rpc = scene
        .attachments()
        .get(Rpc.class)
        .orElseThrow(() -> new RasterException(
            "This scene has no sensor model (RPC). Open it with its RPC text beside it (NAME_RPC.TXT), or find tie"
                + " points with a placed raster and warp it by them."));
    rpc.doubt(scene.grid().width(), scene.grid().height())
        .ifPresent(doubt -> job.warn("The scene " + doubt));
    return rpc;
  }

  /**
   * Its sensor model where it has one, else its georeference.
   *
   * @param crs in which the model is to be asked; none where the ground is the pixels of a picture, in which nothing lies yet
   */
  public static Optional<ImageModel> of(Raster scene, CrsName crs) {
    if (!crs.isKnown()) {
      return Optional.empty();
    }
    Optional<Rpc> rpc = scene.attachments().get(Rpc.class);
    if (rpc.isPresent()) {
      return Optional.of(InSystem.of(rpc.get(), crs));
    }
    return scene.grid().crs().isKnown()
        ? Optional.of(InSystem.of(GridModel.of(scene.grid()), crs))
        : Optional.empty();
  }
}
