-- An entry is of an item, or of what a clinician decides: the flag that is lifted, the hold that is released, the priority, its range.
alter table entry rename column item to about;
comment on column entry.about is 'the item, or the flag, hold, priority or range that is decided on; of what is said of the same the latest stands';
