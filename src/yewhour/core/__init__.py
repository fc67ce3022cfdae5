"""The computation: values and pure functions, in the order of the pipeline.

unfold -> fit -> layout -> write -> place -> check -> export. Nothing here imports Qt, opens a file,
reads a clock or draws a random number; what the outside knows comes in as arguments.
"""
