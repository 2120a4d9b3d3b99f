package sharpkestrel.sharpen;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.util.PolygonExtracter;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.sharpen.profile.Profile;
import sharpkestrel.sharpen.profile.ProfileReport;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Spectral profiles of areas, how well each pair is told apart, and by which three bands best. */
@StepInfo(
    id = "profiles",
    stage = Stage.SHARPEN,
    title = "Profiles",
    does =
        "Mean and spread of every band in areas, how well each pair of them is told apart (Jeffries-Matusita distance and"
            + " transformed divergence), and which three bands tell them apart best.")
public record Profiles(
    @In(does = "A scene with several bands.", suits = Suits.SEVERAL_BANDS)
    Raster scene,

    @In(does = "Outlines of the areas, in the scene's system.")
    OutlineSet areas,

    @Setting(
        label = "Names",
        does =
            "Column that names the areas; areas of one name make one profile. auto: 'name', else each by itself.",
        initial = "auto")
    Optional<String> names)
    implements Step<ProfileReport> {

  private static final double OF_WHOLE_NUMBERS = 1.0 / 12;

  @Override
  public ProfileReport run(Job job) {
    if (!areas.crs().equals(scene.grid().crs())) {
      throw new RasterException("The areas are in " + areas.crs() + ", the scene in "
          + scene.grid().crs() + ". Give the areas in the scene's system.");
    }
    if (areas.count() == 0) {
      throw new RasterException("There are no areas to take profiles of.");
    }
    List<Profile> profiles = new ArrayList<>();
    byName().forEach((name, shapes) -> {
      Geometry all = shapes.get(0).getFactory().buildGeometry(shapes);
      profiles.add(Profile.of(name, scene, all, job));
    });
    return new ProfileReport(List.copyOf(profiles), scene.bands(), grain(scene));
  }

  /** Variance of rounding to the scene's samples. */
  public static double grain(Raster scene) {
    return scene.bands().get(0).type().isWhole() ? OF_WHOLE_NUMBERS : 0;
  }

  private Map<String, List<Geometry>> byName() {
    Map<String, List<Geometry>> byName = new LinkedHashMap<>();
    String wanted = names.orElse("name");
    boolean named = areas.table().has(wanted);
    if (!named && names.isPresent()) {
      throw new RasterException("The areas have no column '" + wanted + "'. They have: "
          + String.join(
              ", ", areas.table().columns().stream().map(Table.Column::name).toList())
          + ".");
    }
    for (int i = 0; i < areas.count(); i++) {
      Table.Column column = named ? areas.table().column(wanted) : null;
      String name = column == null
          ? "area " + (i + 1)
          : column.isText() ? column.text(i) : String.valueOf(column.values()[i]);
      byName
          .computeIfAbsent(name, n -> new ArrayList<>())
          .addAll(polygons(areas.outlines().get(i)));
    }
    return byName;
  }

  private static List<Geometry> polygons(Geometry outline) {
    List<Geometry> polygons = new ArrayList<>();
    for (Object polygon : PolygonExtracter.getPolygons(outline)) {
      polygons.add((Geometry) polygon);
    }
    return polygons;
  }
}
