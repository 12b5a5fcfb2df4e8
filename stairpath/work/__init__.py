"""What is done: one function for each thing that a person or a job does, in one transaction, told as one event."""
