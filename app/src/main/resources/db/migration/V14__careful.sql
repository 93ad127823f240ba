-- acting on the cheapest day is the default; a workshop that has set its own figures keeps its policy
UPDATE workshop SET policy_kind = 'CAREFUL' WHERE version = 1 AND changed_by = '';
