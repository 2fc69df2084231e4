-- The joins of a list are written in the order in which they are done: what the planner finds in trying every order costs it more than it saves.
alter role awl_app set join_collapse_limit = 4;
