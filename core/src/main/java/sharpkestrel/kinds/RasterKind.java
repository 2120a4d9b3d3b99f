package sharpkestrel.kinds;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sharpkestrel.extract.pixels.PixelProbabilities;
import sharpkestrel.gather.Calibrate;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.Placement;
import sharpkestrel.geo.Rpc;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.io.Compression;
import sharpkestrel.io.GeoTiffWriter;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;
import sharpkestrel.sharpen.pan.PanModel;
import sharpkestrel.step.Step;
import sharpkestrel.step.Suits;

/** Scenes and all that is made of them pixel for pixel. */
final class RasterKind extends ResultKind<Raster> {

  private static final int STRIP = 256;

  RasterKind() {
    super(Raster.class, "a raster");
  }

  @Override
  public String describe(Raster raster) {
    int bands = raster.bands().size();
    return String.format(
            Locale.ROOT,
            "%d x %d pixels of %.3g, %d band%s, %s",
            raster.grid().width(),
            raster.grid().height(),
            raster.grid().pixelSize(),
            bands,
            bands == 1 ? "" : "s",
            raster.bands().get(0).type().label())
        + raster.attachments().get(SeamVisibility.class).map(RasterKind::seams).orElse("")
        + raster
            .attachments()
            .get(PanModel.class)
            .filter(model -> model.gains().length == bands)
            .map(model -> sharpening(model, raster))
            .orElse("");
  }

  private static String sharpening(PanModel model, Raster raster) {
    String weights = model.weightsText();
    return (weights.isEmpty() ? "" : ", weights " + weights)
        + (model.alignment().isNone()
            ? ""
            : ", bands moved by " + model.alignment().toText(raster.bands()));
  }

  /** Scenes that do not overlap have no seam to be seen. */
  private static String seams(SeamVisibility seams) {
    return Double.isNaN(seams.after()) || Double.isNaN(seams.before())
        ? "; its scenes do not overlap, so there was nothing to balance by"
        : told(seams);
  }

  private static String told(SeamVisibility seams) {
    return String.format(
        Locale.ROOT,
        "; along its seams scenes differ by %.2f %% of the range of values, before by %.2f %% (%d blocks of %.0f m)",
        seams.after(),
        seams.before(),
        seams.blocks(),
        seams.metres());
  }

  @Override
  public String note(Raster raster) {
    Optional<String> seams = raster
        .attachments()
        .get(SeamVisibility.class)
        .filter(s -> !Double.isNaN(s.after()))
        .map(s -> String.format(Locale.ROOT, "seams %.1f %%", s.after()));
    return seams.orElseGet(() -> raster.bands().size() == 1
        ? raster.bands().get(0).role().label()
        : raster.bands().size() + " bands");
  }

  /** How well a raster was placed, where it tells. */
  static Optional<String> placed(Raster raster) {
    return raster
        .attachments()
        .get(Placement.class)
        .map(placement -> String.format(Locale.ROOT, "%.2f px RMS", placement.rms()));
  }

  @Override
  public void digest(Raster raster, Digest into, Job job) {
    var affine = raster.grid().affine();
    into.add(raster.grid().width())
        .add(raster.grid().height())
        .add(raster.grid().crs().text());
    into.add(affine.a(), affine.b(), affine.c(), affine.d(), affine.e(), affine.f());
    for (Band band : raster.bands()) {
      into.add(band.name())
          .add(band.role().key())
          .add(band.unit())
          .add(band.type().name());
    }
    int width = raster.grid().width();
    for (int top = 0; top < raster.grid().height(); top += STRIP) {
      job.cancellation().check();
      Window strip = new Window(0, top, width, STRIP).intersect(raster.grid().window());
      for (float[] plane : raster.read(0, strip, job.request())) {
        into.add(plane);
      }
    }
  }

  @Override
  public List<String> endings() {
    return List.of(".tif", ".tiff");
  }

  @Override
  public List<String> readEndings() {
    return RasterFiles.ENDINGS;
  }

  @Override
  public Raster read(Path file, Job job) {
    return RasterFiles.open(file);
  }

  @Override
  public List<Path> readWith(Path file) {
    return RasterFiles.readWith(file);
  }

  @Override
  public void write(Raster raster, Path file, Delivery delivery, Job job) {
    GeoTiffWriter.write(raster, file, delivery.compression(), delivery.overviews(), job);
  }

  @Override
  public boolean suits(Raster raster, Suits wanted) {
    return switch (wanted) {
      case RAW -> raster.attachments().get(Rpc.class).isPresent();
      case UNPLACED ->
        !raster.grid().crs().isKnown() && raster.attachments().get(Rpc.class).isEmpty();
      case PLACED -> raster.grid().crs().isKnown();
      case ONE_BAND -> raster.bands().size() == 1;
      case SEVERAL_BANDS -> raster.bands().size() > 1;
      case OBJECTS, UNMEASURED, MEASURED, CLUSTERS, CLASS_MAP, OUTLINES, POINTS -> false;
      case PROBABILITIES ->
        raster.bands().stream().allMatch(b -> b.unit().equals(PixelProbabilities.UNIT));
      case WITH_GAINS ->
        raster
            .attachments()
            .get(Acquisition.class)
            .filter(taken -> !taken.calibration().isEmpty())
            .isPresent();
      case NUMBERS ->
        raster.bands().stream().noneMatch(b -> b.unit().equals(Calibrate.REFLECTANCE));
    };
  }

  @Override
  public Optional<Keeping<Raster>> keeping() {
    return Optional.of(new Keeping<>() {
      @Override
      public String folder() {
        return "rasters";
      }

      @Override
      public List<String> endings() {
        return List.of(".tif");
      }

      @Override
      public boolean isWorthIt(Raster raster) {
        return raster.zoom() != Zoom.POINTWISE;
      }

      @Override
      public Raster read(Path stem, Step<?> step, Job job) {
        return RasterFiles.open(with(stem, ".tif"));
      }

      @Override
      public Raster guarded(Raster found, Step<?> step, Job job) {
        return new GuardedRaster(found, step, job);
      }

      @Override
      public Raster write(Raster raster, Path stem, Job job) {
        GeoTiffWriter.write(raster, with(stem, ".tif"), Compression.ZSTD, job);
        return RasterFiles.open(with(stem, ".tif"));
      }
    });
  }
}
