package sharpkestrel.extract;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import sharpkestrel.expr.Cql2;
import sharpkestrel.expr.Table;
import sharpkestrel.extract.classmap.ClassMap;
import sharpkestrel.extract.cluster.ClusterSettings;
import sharpkestrel.extract.cluster.Clusters;
import sharpkestrel.objects.ObjectSet;
import sharpkestrel.objects.Selection;
import sharpkestrel.raster.Job;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** Clusters of objects that form of themselves. */
@StepInfo(
    id = "cluster-objects",
    stage = Stage.EXTRACT,
    family = "Clusters",
    title = "Cluster objects",
    makes = "Clustered objects",
    does =
        "Lets clusters of objects form by their features, without samples; each object has its cluster as its class. 'name-classes' calls"
            + " them otherwise, 'absorb' and 'class-objects' make areas of them.")
public record ClusterObjects(
    @In(does = "The objects, measured.", suits = Suits.MEASURED)
    ObjectSet objects,

    @Setting(
        label = "Features",
        does = "Columns to tell by, separated by commas; auto takes the means of all bands.",
        initial = "auto")
    List<String> features,

    @Setting(
        label = "Test",
        does =
            "CQL2 test of the objects that fall into clusters, e.g. class = 'ground'; others keep the class they have. auto: all.",
        initial = "auto")
    Optional<String> test,

    @Group ClusterSettings settings)
    implements Step<ObjectSet> {

  private static final String MEAN = "_mean";

  public ClusterObjects {
    test.ifPresent(Cql2::parseTest);
  }

  @Override
  public ObjectSet run(Job job) {
    Table table = objects.table();
    List<String> names = names(table);
    boolean[] meant = Selection.of(table, test.orElse(""));
    int[] rows = IntStream.range(0, meant.length).filter(i -> meant[i]).toArray();
    float[][] columns = new float[names.size()][rows.length];
    for (int f = 0; f < columns.length; f++) {
      double[] values = table.values(names.get(f));
      for (int i = 0; i < rows.length; i++) {
        columns[f][i] = (float) values[rows[i]];
      }
    }
    Clusters clusters = Clusters.find(columns, settings, job);
    return told(clusters, columns, rows);
  }

  private List<String> names(Table table) {
    if (!features.isEmpty()) {
      List<String> wanted = features.stream().map(String::strip).toList();
      wanted.forEach(table::column);
      return wanted;
    }
    List<String> means = LearnClasses.features(table).stream()
        .filter(name -> name.endsWith(MEAN))
        .toList();
    return means.isEmpty() ? LearnClasses.features(table) : means;
  }

  private ObjectSet told(Clusters clusters, float[][] columns, int[] rows) {
    Table table = objects.table();
    List<String> said = new ArrayList<>(texts(table, ClassMap.CLASS));
    List<String> colours = new ArrayList<>(texts(table, ClassMap.COLOUR));
    List<String> names = clusters.names();
    List<String> colourOf = clusters.colours();
    float[] row = new float[columns.length];
    for (int i = 0; i < rows.length; i++) {
      for (int f = 0; f < row.length; f++) {
        row[f] = columns[f][i];
      }
      int cluster = clusters.of(row);
      said.set(rows[i], names.get(cluster));
      colours.set(rows[i], colourOf.get(cluster));
    }
    return objects.withTable(table.with(List.of(
        Table.Column.ofTexts(ClassMap.CLASS, "Class", said),
        Table.Column.ofTexts(ClassMap.COLOUR, "Colour", colours))));
  }

  /** The texts of a column where there is such, else none for all. */
  private static List<String> texts(Table table, String column) {
    List<String> texts = new ArrayList<>();
    boolean there = table.has(column) && table.column(column).isText();
    for (int row = 0; row < table.rows(); row++) {
      String text = there ? table.column(column).text(row) : "";
      texts.add(text.isEmpty() ? null : text);
    }
    return texts;
  }
}
