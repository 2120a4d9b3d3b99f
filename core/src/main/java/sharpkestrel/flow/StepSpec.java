package sharpkestrel.flow;

import java.lang.reflect.Constructor;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.kinds.ResultKinds;
import sharpkestrel.raster.Extent;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Group;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Sources;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;
import sharpkestrel.step.Suits;

/** A step's declaration, read from its record by reflection. */
public final class StepSpec {

  /** A record component that is an input. */
  public record Input(
      String name,
      Class<?> type,
      boolean optional,
      String without,
      boolean several,
      String does,
      boolean ofPlace,
      boolean byHand,
      List<String> when,
      List<Suits> suits) {

    /** Whether it counts beside settings; see {@link Option#counts}. */
    public boolean counts(UnaryOperator<String> valueOf) {
      return StepSpec.counts(when, valueOf);
    }

    /** The name under which the one at a place, from 1 on, is given where it takes several. */
    public String nth(int place) {
      return name + ":" + place;
    }

    /** Whether a name is this input's, or that of one of its several. */
    public boolean isCalled(String given) {
      return several
          ? given.startsWith(name + ":") && given.substring(name.length() + 1).matches("[1-9]\\d*")
          : given.equals(name);
    }
  }

  /** A record component that is a setting. */
  public record Option(
      String name,
      String label,
      String does,
      String unit,
      double min,
      double max,
      String initial,
      boolean ofPlace,
      List<String> when,
      Type type,
      Sources reads) {

    /**
     * Whether it counts beside other settings.
     *
     * @param valueOf the text of another setting
     */
    public boolean counts(UnaryOperator<String> valueOf) {
      return StepSpec.counts(when, valueOf);
    }

    public boolean isRequired() {
      return initial.isEmpty();
    }

    public Class<?> rawType() {
      return type instanceof ParameterizedType p ? (Class<?>) p.getRawType() : (Class<?>) type;
    }

    /** Whether its value is a text, given or left to the step. */
    public boolean isText() {
      return type == String.class || isOptional(String.class);
    }

    private boolean isOptional(Class<?> of) {
      return rawType() == Optional.class
          && ((ParameterizedType) type).getActualTypeArguments()[0] == of;
    }

    /** Whether its value is the path of a file, or of several. */
    public boolean namesFiles() {
      return type == Path.class
          || type instanceof ParameterizedType p
              && p.getRawType() == List.class
              && p.getActualTypeArguments()[0] == Path.class;
    }

    /** Whether its value may name several files. */
    public boolean namesSeveral() {
      return namesFiles() && rawType() == List.class;
    }

    /** Whether its value is a part of the ground, or of a scene without a place. */
    public boolean isArea() {
      return isOptional(Extent.class);
    }

    /** The files that its text names. */
    public List<Path> files(String text) {
      Object value = SettingValues.parse(this, text);
      return value instanceof Path one
          ? List.of(one)
          : ((List<?>) value).stream().map(Path.class::cast).toList();
    }

    /** The constants to choose among; empty where it is no such choice. */
    public Optional<Class<?>> choices() {
      Class<?> of = rawType() == Optional.class
          ? (Class<?>) ((ParameterizedType) type).getActualTypeArguments()[0]
          : rawType();
      return of.isEnum() ? Optional.of(of) : Optional.empty();
    }

    /** "0.01 to 1000 m", "at least 0", or what values there are; empty where anything goes. */
    public String range() {
      if (choices().isPresent()) {
        List<String> names = new ArrayList<>();
        if (rawType() == Optional.class) {
          names.add(initial);
        }
        for (Object constant : choices().get().getEnumConstants()) {
          names.add(constant.toString().toLowerCase(Locale.ROOT));
        }
        return String.join(", ", names);
      }
      if (rawType() == boolean.class) {
        return "true, false";
      }
      String suffix = unit.isEmpty() ? "" : " " + unit;
      boolean low = min > Double.NEGATIVE_INFINITY;
      boolean high = max < Double.POSITIVE_INFINITY;
      String from = SettingValues.plain(min);
      String to = SettingValues.plain(max);
      return low && high
          ? from + " to " + to + suffix
          : low ? "at least " + from + suffix : high ? "at most " + to + suffix : unit;
    }
  }

  /** Stands for the name of the first input in what a step calls its result. */
  private static final String NAME = "{}";

  private final Class<? extends Step<?>> type;
  private final StepInfo info;
  private final List<Input> inputs = new ArrayList<>();
  private final List<Option> options = new ArrayList<>();

  StepSpec(Class<? extends Step<?>> type) {
    this.type = type;
    this.info = type.getAnnotation(StepInfo.class);
    read(type);
    checkConditions();
  }

  private void read(Class<?> declaring) {
    for (RecordComponent component : declaring.getRecordComponents()) {
      In in = component.getAnnotation(In.class);
      Setting setting = component.getAnnotation(Setting.class);
      if (component.isAnnotationPresent(Group.class)) {
        read(component.getType());
      } else if (in != null) {
        inputs.add(new Input(
            kebab(component.getName()),
            component.getGenericType() instanceof ParameterizedType of
                ? (Class<?>) of.getActualTypeArguments()[0]
                : component.getType(),
            in.optional(),
            in.without(),
            component.getType() == List.class,
            in.does(),
            in.ofPlace(),
            in.byHand(),
            List.of(in.when()),
            List.of(in.suits())));
      } else {
        options.add(new Option(
            kebab(component.getName()),
            setting.label(),
            setting.does(),
            setting.unit(),
            setting.min(),
            setting.max(),
            setting.initial(),
            setting.ofPlace(),
            List.of(setting.when()),
            component.getGenericType(),
            sources(setting.reads())));
      }
    }
  }

  private static Sources sources(Class<? extends Sources> of) {
    try {
      return of.getDeclaredConstructor().newInstance();
    } catch (ReflectiveOperationException impossible) {
      throw new IllegalStateException(of + " cannot be made", impossible);
    }
  }

  /** What a setting or an input depends on must be there, and be able to have that value. */
  private void checkConditions() {
    List<String> all = new ArrayList<>();
    inputs.forEach(input -> all.addAll(input.when()));
    options.forEach(option -> all.addAll(option.when()));
    for (String condition : all) {
      String[] sides = condition.split("=");
      Option on = options.stream()
          .filter(option -> option.name().equals(sides[0]))
          .findFirst()
          .orElseThrow(() -> new IllegalStateException("Step '" + id() + "': '" + condition
              + "' is a condition on a setting that there is not"));
      SettingValues.parse(on, sides[1]);
    }
  }

  private static boolean counts(List<String> when, UnaryOperator<String> valueOf) {
    return when.isEmpty()
        || when.stream().map(text -> text.split("=")).anyMatch(sides -> {
          String value = String.valueOf(valueOf.apply(sides[0]));
          return value.replace('-', '_').equalsIgnoreCase(sides[1]);
        });
  }

  static String kebab(String camel) {
    return camel.replaceAll("([a-z0-9])([A-Z])", "$1-$2").toLowerCase(Locale.ROOT);
  }

  public String id() {
    return info.id();
  }

  public String title() {
    return info.title();
  }

  public String does() {
    return info.does();
  }

  /** Whether a raster that it makes is as light and dark as the one it is made from, so that both are seen alike. */
  public boolean keepsTones() {
    return info.keepsTones();
  }

  /**
   * What its result is called where nobody names it.
   *
   * @param from what its first input is called; empty for none
   */
  public String resultTitle(String from) {
    String makes = info.makes().isEmpty() ? title() : info.makes();
    return makes.replace(NAME, StepCatalogue.withoutAdditions(from)).strip();
  }

  /** What it adds behind the name of what it works on; empty where it does not. */
  String addition() {
    return info.makes().startsWith(NAME) ? info.makes().substring(NAME.length()) : "";
  }

  /** Why it is what comes next for what it would work on; empty where it is not proposed. */
  public String next() {
    return info.next();
  }

  /** The input that puts what was learned to use; empty where there is none, or the value is no model. */
  public Optional<Input> modelInput(Object value) {
    return ResultKinds.of(value).isModel()
        ? inputs.stream().filter(input -> input.type().isInstance(value)).findFirst()
        : Optional.empty();
  }

  /** Whether it is proposed for a value. */
  public boolean comesNextFor(Object value) {
    return !info.next().isEmpty()
        && List.of(info.nextFor()).stream()
            .allMatch(ask -> ResultKinds.of(value).suits(value, ask));
  }

  /** Whether it draws objects anew, so that those in and near the trial patch are what is tried. */
  public boolean redrawsObjects() {
    return info.redrawsObjects();
  }

  /** Whether it writes files beside those of its result, so that it must not be tried. */
  public boolean writesBeside() {
    return info.writesBeside();
  }

  /** Tells what the step makes now from what it made from the same inputs and settings before it was changed. */
  public int version() {
    return info.version();
  }

  public Stage stage() {
    return info.stage();
  }

  /** What steps of its stage it stands together with; empty where those are few. */
  public String family() {
    return info.family();
  }

  public List<Input> inputs() {
    return inputs;
  }

  /** The input that a name belongs to, its own or that of one of its several. */
  public Input inputCalled(String name) {
    return inputs.stream().filter(i -> i.isCalled(name)).findFirst().orElseThrow();
  }

  public List<Option> options() {
    return options;
  }

  public Option optionCalled(String name) {
    return options.stream().filter(o -> o.name().equals(name)).findFirst().orElseThrow();
  }

  /** What the step produces. */
  public Class<?> resultType() {
    try {
      return type.getMethod("run", sharpkestrel.raster.Job.class).getReturnType();
    } catch (NoSuchMethodException impossible) {
      throw new IllegalStateException(impossible);
    }
  }

  /**
   * Makes the step.
   *
   * @param given inputs by name; of one that takes several each by its {@link Input#nth}
   * @param settings texts by name; those left out take their initial value
   * @throws RasterException that names what is missing, unknown or out of range
   */
  public Step<?> make(Map<String, Object> given, Map<String, String> settings) {
    for (String name : settings.keySet()) {
      if (options.stream().noneMatch(o -> o.name().equals(name))) {
        throw new RasterException("Step '"
            + id()
            + "' has no setting '"
            + name
            + "'. It has: "
            + String.join(", ", options.stream().map(Option::name).toList())
            + ".");
      }
    }
    return (Step<?>) build(type, inputs.iterator(), options.iterator(), given, settings);
  }

  /** A record from inputs and settings in the order in which it declares them, its groups likewise. */
  private Object build(
      Class<?> declaring,
      Iterator<Input> in,
      Iterator<Option> option,
      Map<String, Object> given,
      Map<String, String> settings) {
    RecordComponent[] components = declaring.getRecordComponents();
    Object[] arguments = new Object[components.length];
    Class<?>[] types = new Class<?>[components.length];
    for (int i = 0; i < components.length; i++) {
      types[i] = components[i].getType();
      arguments[i] = components[i].isAnnotationPresent(Group.class)
          ? build(types[i], in, option, given, settings)
          : components[i].isAnnotationPresent(In.class)
              ? input(in.next(), given)
              : setting(option.next(), settings);
    }
    try {
      Constructor<?> constructor = declaring.getDeclaredConstructor(types);
      return constructor.newInstance(arguments);
    } catch (InvocationTargetException refused) {
      if (refused.getCause() instanceof RuntimeException clear) {
        throw new RasterException(clear.getMessage(), clear);
      }
      throw new IllegalStateException(refused);
    } catch (ReflectiveOperationException impossible) {
      throw new IllegalStateException(impossible);
    }
  }

  private Object input(Input input, Map<String, Object> given) {
    if (input.several()) {
      return several(input, given);
    }
    Object value = given.get(input.name());
    if (value == null && !input.optional()) {
      throw new RasterException(
          "Step '" + id() + "' needs the input '" + input.name() + "': " + input.does());
    }
    if (value == null) {
      return Optional.empty();
    }
    Object fitting = ResultKinds.as(value, input.type());
    if (fitting instanceof OutlineSet set && !input.suits().contains(Suits.POINTS)) {
      requireAreas(input, set);
    }
    return input.optional() ? Optional.of(fitting) : fitting;
  }

  private void requireAreas(Input input, OutlineSet set) {
    for (int row = 0; row < set.count(); row++) {
      Geometry shape = set.outlines().get(row);
      if (shape.getDimension() < 2) {
        throw new RasterException(
            "The input '" + input.name() + "' of step '" + id() + "' takes areas, but feature "
                + (row + 1) + " is a " + shape.getGeometryType() + ". Give polygons.");
      }
    }
  }

  private List<Object> several(Input input, Map<String, Object> given) {
    List<Object> values = new ArrayList<>();
    while (given.get(input.nth(values.size() + 1)) != null) {
      values.add(ResultKinds.as(given.get(input.nth(values.size() + 1)), input.type()));
    }
    if (values.isEmpty()) {
      throw new RasterException(
          "Step '" + id() + "' needs the inputs '" + input.name() + "': " + input.does());
    }
    return List.copyOf(values);
  }

  private Object setting(Option option, Map<String, String> settings) {
    String text = settings.getOrDefault(option.name(), option.initial());
    if (text.isEmpty() && option.isRequired()) {
      throw new RasterException(
          "Step '" + id() + "' needs the setting '" + option.name() + "': " + option.does());
    }
    return SettingValues.parse(option, text);
  }
}
