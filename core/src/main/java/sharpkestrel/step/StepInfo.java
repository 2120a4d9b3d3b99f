package sharpkestrel.step;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** Names a step. */
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.TYPE)
public @interface StepInfo {
  /** Kebab case; the name on the command line and in run sheets. */
  String id();

  Stage stage();

  /** For the panel and the trail. */
  String title();

  /** What steps of its stage it stands together with, in a word or two; empty where the stage has few. */
  String family() default "";

  /** One or two sentences: what it does, by which method. */
  String does();

  /**
   * What its result is called where nobody names it; {@code {}} stands for what its first input is called, without what
   * earlier steps added. Empty: its title.
   */
  String makes() default "";

  /**
   * Why it is what comes next for what it would work on, in a few words that come before a button; empty where it is not
   * proposed.
   */
  String next() default "";

  /** What it is proposed for, of all that its first input takes. */
  Suits[] nextFor() default {};

  /** Goes up by one when the step makes another result from the same inputs and settings, so that kept ones are not taken. */
  int version() default 1;

  /** Whether a raster that it makes is as light and dark as the one it is made from, so that both are seen alike. */
  boolean keepsTones() default true;

  /** Whether it writes files beside those of its result; such a step is run when it is told to and never tried before. */
  boolean writesBeside() default false;

  /** Whether it draws objects anew, so that those in and near the trial patch are what is tried. */
  boolean redrawsObjects() default false;
}
