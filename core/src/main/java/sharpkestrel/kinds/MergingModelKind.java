package sharpkestrel.kinds;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import sharpkestrel.raster.Job;
import sharpkestrel.segment.learn.MergingModel;
import sharpkestrel.segment.learn.MergingModelFile;
import sharpkestrel.step.Step;

/** What was learned of which neighbours belong together. */
final class MergingModelKind extends ResultKind<MergingModel> {

  MergingModelKind() {
    super(MergingModel.class, "a merging model");
  }

  @Override
  public String describe(MergingModel model) {
    return model.about() + "; " + model.card().toText();
  }

  @Override
  public String note(MergingModel model) {
    return "merging model";
  }

  @Override
  public void digest(MergingModel model, Digest into, Job job) {
    into.add(MergingModelFile.text(model));
  }

  @Override
  public List<String> endings() {
    return List.of(".json");
  }

  @Override
  public MergingModel read(Path file, Job job) {
    return MergingModelFile.read(file);
  }

  @Override
  public void write(MergingModel model, Path file, Delivery delivery, Job job) {
    MergingModelFile.write(model, file);
  }

  @Override
  public Optional<Keeping<MergingModel>> keeping() {
    return Optional.of(new Keeping<>() {
      @Override
      public String folder() {
        return "models";
      }

      @Override
      public List<String> endings() {
        return List.of(".json");
      }

      @Override
      public MergingModel read(Path stem, Step<?> step, Job job) {
        return MergingModelFile.read(with(stem, ".json"));
      }

      @Override
      public MergingModel write(MergingModel model, Path stem, Job job) {
        MergingModelFile.write(model, with(stem, ".json"));
        return model;
      }
    });
  }
}
