package sharpkestrel.app.tools.profile;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ListChangeListener;
import javafx.collections.ObservableList;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.project.HandLog;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.expr.Table;
import sharpkestrel.geo.Crs;
import sharpkestrel.io.Layer;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.sharpen.Profiles;
import sharpkestrel.sharpen.profile.Profile;
import sharpkestrel.sharpen.profile.ProfileReport;

/** Places whose spectral profiles are looked at, and those profiles on the scene shown. Kept with the project. */
public final class ProfileModel {

  /** Colours there are to tell places by. */
  public static final int COLOURS = 8;

  /**
   * A place.
   *
   * @param colour number of its colour
   * @param area polygon in ground coordinates
   * @param shown whether it takes part
   */
  public record Place(String name, int colour, CrsName crs, Geometry area, boolean shown) {

    public Place named(String newName) {
      return new Place(newName, colour, crs, area, shown);
    }

    /** The same place in another system. */
    public Place in(CrsName other) {
      return other.equals(crs)
          ? this
          : new Place(name, colour, other, Crs.of(crs).to(Crs.of(other)).of(area), shown);
    }

    public Place shown(boolean newShown) {
      return new Place(name, colour, crs, area, newShown);
    }
  }

  /**
   * Profiles of the places that take part.
   *
   * @param places in the order of the report's profiles
   */
  public record Shown(List<Place> places, Raster scene, ProfileReport report) {}

  private final Workspace workspace;
  private final HandLog file;
  private final ObservableList<Place> places = FXCollections.observableArrayList();
  private final ObjectProperty<Shown> shown = new SimpleObjectProperty<>();

  /**
   * @param watch followed while the tool is in hand
   */
  public ProfileModel(Workspace workspace, Watch watch) {
    this.workspace = workspace;
    file = new HandLog(workspace, "profiles");
    workspace.ask(file, job -> file.read().map(ProfileModel::places).orElse(List.of()), before -> {
      places.addAll(0, before);
      places.addListener((ListChangeListener<Place>) change -> {
        write();
        measure();
      });
      measure();
    });
    watch.on(workspace.display().paneAProperty(), now -> measure());
    measure();
  }

  public ObservableList<Place> places() {
    return places;
  }

  /** Profiles on the scene that pane A shows; null where there are none. */
  public ObjectProperty<Shown> shownProperty() {
    return shown;
  }

  /** The placed scene that pane A shows; null where it shows none. */
  public Raster scene() {
    Result result = workspace.display().paneAProperty().get();
    Raster raster = result == null ? null : result.backdrop();
    return raster != null && raster.grid().crs().isKnown() ? raster : null;
  }

  /**
   * @param kind word that its name begins with
   */
  public void add(Geometry area, String kind) {
    int next = places.size() + 1;
    while (taken(kind + " " + next)) {
      next++;
    }
    places.add(new Place(kind + " " + next, freeColour(), scene().grid().crs(), area, true));
  }

  private boolean taken(String name) {
    return places.stream().anyMatch(p -> p.name().equals(name));
  }

  private int freeColour() {
    for (int colour = 0; colour < COLOURS; colour++) {
      int c = colour;
      if (places.stream().noneMatch(p -> p.colour() == c)) {
        return colour;
      }
    }
    return places.size() % COLOURS;
  }

  /** Measures the places that take part on the scene shown, away from the interface thread. */
  private void measure() {
    Raster scene = scene();
    List<Place> wanted =
        scene == null ? List.of() : places.stream().filter(Place::shown).toList();
    if (wanted.isEmpty()) {
      workspace.lanes().trial().drop(this);
      shown.set(null);
      return;
    }
    workspace
        .lanes()
        .trial()
        .ask(
            this,
            "Profiles",
            job -> profiles(scene, wanted, job),
            made -> {
              shown.set(made);
            },
            failure -> workspace.messages().tell(failure.getMessage()));
  }

  private static Shown profiles(Raster scene, List<Place> wanted, Job job) {
    List<Place> there = new ArrayList<>();
    List<Profile> profiles = new ArrayList<>();
    for (Place place : wanted) {
      try {
        Place here = place.in(scene.grid().crs());
        profiles.add(Profile.of(here.name(), scene, here.area(), job));
        there.add(here);
      } catch (RasterException elsewhere) {
        job.warn(elsewhere.getMessage());
      }
    }
    return new Shown(
        there, scene, new ProfileReport(profiles, scene.bands(), Profiles.grain(scene)));
  }

  private void write() {
    double[] colours = places.stream().mapToDouble(Place::colour).toArray();
    double[] parts = places.stream().mapToDouble(p -> p.shown() ? 1 : 0).toArray();
    Table table = new Table(
        places.size(),
        List.of(
            Table.Column.ofTexts(
                "name", "Name", places.stream().map(Place::name).toList()),
            new Table.Column("colour", "Colour", "", colours),
            new Table.Column("shown", "Shown", "", parts)));
    file.write(new Layer(
        "profiles",
        places.isEmpty() ? CrsName.NONE : places.getFirst().crs(),
        places.stream().map(Place::area).toList(),
        table,
        Map.of()));
  }

  private static List<Place> places(Layer layer) {
    List<Place> all = new ArrayList<>();
    for (int i = 0; i < layer.size(); i++) {
      all.add(new Place(
          layer.table().column("name").text(i),
          (int) layer.table().values("colour")[i],
          layer.crs(),
          layer.geometries().get(i),
          layer.table().values("shown")[i] != 0));
    }
    return all;
  }
}
