package sharpkestrel.app.shell;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.ResultMaker;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.flow.Origin;
import sharpkestrel.flow.SettingValues;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.geo.ImageInverse;
import sharpkestrel.geo.ImageModel;
import sharpkestrel.geo.InSystem;
import sharpkestrel.geo.Rpc;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.place.GroundHeights;
import sharpkestrel.place.Heights;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;

/**
 * A raw scene as it would lie on the ground, computed where somebody looks and written nowhere: over the heights that the
 * place has, else over a coarse model, else at the one height that its sensor model names.
 */
public final class LivePlacing {

  /** What pane A shows of a scene with a sensor model. */
  public enum State {
    /** No such scene. */
    NONE,
    RAW,
    PLACED
  }

  private static final String SUFFIX = "-placed-live";

  private final Workspace workspace;
  private final StepSpec ortho = StepCatalogue.get("ortho");
  private final ReadOnlyObjectWrapper<State> state = new ReadOnlyObjectWrapper<>(State.NONE);
  private final Map<String, Result> placed = new LinkedHashMap<>();

  public LivePlacing(Workspace workspace) {
    this.workspace = workspace;
    workspace.display().paneAProperty().addListener((p, before, now) -> state.set(of(now)));
  }

  private static State of(Result shown) {
    if (shown != null && shown.name().endsWith(SUFFIX)) {
      return State.PLACED;
    }
    return rpcOf(shown).isPresent() ? State.RAW : State.NONE;
  }

  private static Optional<Rpc> rpcOf(Result shown) {
    return shown != null && shown.value() instanceof Raster raster
        ? raster.attachments().get(Rpc.class)
        : Optional.empty();
  }

  public ReadOnlyObjectProperty<State> stateProperty() {
    return state.getReadOnlyProperty();
  }

  /**
   * Told the result that will be shown next, and the column and row of it that show what is in the middle of the picture
   * now.
   */
  public interface Arrival {
    void at(Result next, double col, double row);
  }

  /**
   * Shows the raw scene placed, or the placed one raw.
   *
   * @param col of what pane A shows, in the middle of the picture
   */
  public void toggle(double col, double row, Arrival arrival) {
    Result shown = workspace.display().paneAProperty().get();
    switch (state.get()) {
      case NONE ->
        workspace
            .messages()
            .tell("Only a raw scene with a sensor model can be placed live. Show one in pane A.");
      case PLACED -> {
        Result raw = shown.inputs().get("scene");
        Grid grid = ((Raster) shown.value()).grid();
        double[] image = toImage(shown, grid.affine().x(col, row), grid.affine().y(col, row));
        arrival.at(raw, image[0], image[1]);
        workspace.display().show(raw);
      }
      case RAW ->
        place(shown, result -> {
          double[] place = toGround(result, col, row);
          Affine toPixel = ((Raster) result.value()).grid().affine().inverse();
          arrival.at(result, toPixel.x(place[0], place[1]), toPixel.y(place[0], place[1]));
          workspace.display().show(result);
        });
    }
  }

  /** Where the raw scene of a placed result shows a place. */
  private static double[] toImage(Result result, double x, double y) {
    double[] image = new double[2];
    modelOf(result).toImage(x, y, ground(result).at(x, y), image);
    return image;
  }

  /** Where a pixel of the raw scene lies, from the middle of the placed one on. */
  private static double[] toGround(Result result, double col, double row) {
    Grid grid = ((Raster) result.value()).grid();
    double[] place = {
      grid.affine().x(grid.width() / 2.0, grid.height() / 2.0),
      grid.affine().y(grid.width() / 2.0, grid.height() / 2.0)
    };
    ImageInverse.toGround(
        modelOf(result), ground(result), col, row, grid.affine().pixelWidth(), place);
    return place;
  }

  private static ImageModel modelOf(Result result) {
    return InSystem.of(
        rpcOf(result.inputs().get("scene")).orElseThrow(),
        ((Raster) result.value()).grid().crs());
  }

  /** Heights under a placed scene; where none is known, the one that its sensor model names. */
  private static ImageInverse.Ground ground(Result result) {
    double otherwise = rpcOf(result.inputs().get("scene")).orElseThrow().heightOffset();
    String file = result.files().getOrDefault("heights", "");
    if (file.isEmpty()) {
      return (x, y) -> otherwise;
    }
    double undulation = Double.parseDouble(result.settings().getOrDefault("undulation", "0"));
    Heights heights = new Heights(RasterFiles.open(Path.of(file)), undulation, 0, 0);
    GroundHeights ground =
        new GroundHeights(Optional.of(heights), ((Raster) result.value()).grid().crs());
    return (x, y) -> {
      double height = ground.at(x, y);
      return Double.isNaN(height) ? otherwise : height;
    };
  }

  private void place(Result raw, Consumer<Result> ready) {
    Map<String, String> files = new LinkedHashMap<>();
    Map<String, String> settings = new LinkedHashMap<>();
    String over = heights(raw, files, settings);
    String key = raw.made().key() + files + settings;
    Result known = placed.get(key);
    if (known != null) {
      ready.accept(known);
      return;
    }
    Map<String, Result> inputs = Map.of("scene", raw);
    workspace
        .lanes()
        .trial()
        .ask(
            this,
            "Placing " + raw.title(),
            job -> ResultMaker.cached(
                ortho.make(ResultMaker.values(ortho, inputs, files), settings).run(job)),
            value -> {
              Result result = new Result(
                  raw.name() + SUFFIX,
                  raw.title() + ", placed live over " + over,
                  ortho,
                  inputs,
                  files,
                  settings,
                  value,
                  new Origin.Fingerprint(key, ""));
              placed.put(key, result);
              ready.accept(result);
            },
            failure -> workspace
                .messages()
                .tell(failure.getMessage()
                    + " Heights and undulation are those of the panel Orthorectify."));
  }

  /** The best heights at hand, in words. */
  private String heights(Result raw, Map<String, String> files, Map<String, String> settings) {
    Map<String, String> offered = workspace.suggestions().all();
    String model = offered.getOrDefault("heights", offered.getOrDefault("coarse-heights", ""));
    if (model.isEmpty()) {
      double height = rpcOf(raw).orElseThrow().heightOffset();
      settings.put("height", SettingValues.plain(height));
      return Math.round(height) + " m";
    }
    files.put("heights", model);
    if (offered.containsKey("undulation")) {
      settings.put("undulation", offered.get("undulation"));
    }
    return String.valueOf(Path.of(model).getFileName());
  }
}
