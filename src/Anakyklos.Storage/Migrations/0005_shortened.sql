-- Whether what was seen when a job was done asks for it again after half its interval.
alter table done_job add column shortened integer not null default 0;
