package sharpkestrel.step;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/**
 * Inputs and settings that several steps share, as a record of their own. In panels, on the command line and in run sheets
 * they stand as if the step had them itself.
 */
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.RECORD_COMPONENT)
public @interface Group {}
