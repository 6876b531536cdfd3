-- A phrase with a figure in it is spoken once for each figure, and each text of one's own is kept beside the others.
ALTER TABLE phrase_sound DROP PRIMARY KEY, ADD PRIMARY KEY (phrase, `language`, said);
