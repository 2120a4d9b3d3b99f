/** The files of a survey: deliveries, height models, registers and the truth. */
package sharpkestrel.demo.survey;
