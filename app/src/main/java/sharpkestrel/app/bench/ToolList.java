package sharpkestrel.app.bench;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import sharpkestrel.app.objects.PlotsTool;
import sharpkestrel.app.objects.TableTool;
import sharpkestrel.app.samples.SampleBook;
import sharpkestrel.app.step.StepTool;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.app.tools.alike.AlikeTool;
import sharpkestrel.app.tools.builtup.BuiltUpTool;
import sharpkestrel.app.tools.classes.ClassesTool;
import sharpkestrel.app.tools.compare.CompareTool;
import sharpkestrel.app.tools.find.FindTool;
import sharpkestrel.app.tools.learners.LearnersTool;
import sharpkestrel.app.tools.mosaic.MosaicTool;
import sharpkestrel.app.tools.pansharpen.PansharpenTool;
import sharpkestrel.app.tools.pick.PickTool;
import sharpkestrel.app.tools.profile.ProfileTool;
import sharpkestrel.app.tools.rules.RulesTool;
import sharpkestrel.app.tools.samples.SampleTools;
import sharpkestrel.app.tools.segment.SegmentTool;
import sharpkestrel.app.tools.stack.StackTool;
import sharpkestrel.app.tools.texture.TextureTool;
import sharpkestrel.app.tools.tie.TieTool;
import sharpkestrel.app.tools.winnow.WinnowTool;
import sharpkestrel.flow.StepCatalogue;
import sharpkestrel.flow.StepSpec;

/** Every tool there is: those made for a purpose, a line each, and one for each step that none of them stands for. */
final class ToolList {

  private ToolList() {}

  private static List<Tool> own(Desk desk) {
    Supplier<SampleBook> book = SampleBook.of(desk.workspace());
    List<Tool> own = new ArrayList<>(SampleTools.of(desk, book));
    own.addAll(List.of(
        new StackTool(desk),
        new TieTool(desk),
        new MosaicTool(desk),
        new PansharpenTool(desk),
        new TextureTool(desk),
        new BuiltUpTool(desk),
        new ProfileTool(desk),
        new SegmentTool(desk),
        new PickTool(desk),
        new WinnowTool(desk),
        new AlikeTool(desk, book),
        new RulesTool(desk),
        new FindTool(desk),
        new ClassesTool(desk),
        new CompareTool(desk),
        new LearnersTool(desk),
        new TableTool(desk),
        new PlotsTool(desk),
        new RunSheetTool(desk)));
    return own;
  }

  /** In the order of the work; those of every stage, and those that stand for no step, behind the others. */
  static List<Tool> of(Desk desk) {
    Map<String, Tool> byId = new HashMap<>();
    Set<String> spokenFor = new HashSet<>();
    List<Tool> own = own(desk);
    for (Tool tool : own) {
      byId.put(tool.id(), tool);
      spokenFor.addAll(tool.steps());
    }
    List<Tool> all = new ArrayList<>();
    for (StepSpec step : StepCatalogue.all()) {
      if (byId.containsKey(step.id())) {
        all.add(byId.get(step.id()));
      } else if (!spokenFor.contains(step.id())) {
        all.add(new StepTool(desk, step));
      }
    }
    own.stream().filter(tool -> !all.contains(tool)).forEach(all::add);
    return all;
  }
}
