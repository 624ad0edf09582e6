<?php

/**
 * What is wrong with a field, in a few words: each begins with what the field is called ({@see FieldWords}), so that it can be read
 * beside the field and away from it.
 */
return [
    'required' => ':Attribute: this is needed.',
    'required_if' => ':Attribute: this is needed.',
    'required_unless' => ':Attribute: this is needed.',
    'required_with' => ':Attribute: this is needed.',
    'required_without' => ':Attribute: this is needed.',
    'present' => ':Attribute: this is needed, if only empty.',
    'string' => ':Attribute: write text here.',
    'array' => ':Attribute: this is to be a list.',
    'list' => ':Attribute: this is to be a list.',
    'boolean' => ':Attribute: this is either so or not.',
    'integer' => ':Attribute: write a whole number.',
    'numeric' => ':Attribute: write a number.',
    'uuid' => ':Attribute: this names nothing that is there.',
    'in' => ':Attribute: choose one of what is offered.',
    'enum' => ':Attribute: choose one of what is offered.',
    'distinct' => ':Attribute: this stands there twice.',
    'date' => ':Attribute: this is no date.',
    'date_format' => ':Attribute: write a date such as 2026-11-29.',
    'after_or_equal' => ':Attribute: this is before the first day.',
    'timezone' => ':Attribute: choose a time zone that is offered.',
    'email' => ':Attribute: write an e-mail address such as name@company.example.',
    'url' => ':Attribute: write a whole address, beginning with https:// or http://.',
    'json' => ':Attribute: this cannot be read.',
    'regex' => ':Attribute: this holds characters that cannot stand here.',
    'file' => ':Attribute: choose a file.',
    'uploaded' => ':Attribute: the file did not arrive whole. Try again.',
    'between' => [
        'array' => ':Attribute: from :min to :max of them.',
        'file' => ':Attribute: from :min to :max KB.',
        'numeric' => ':Attribute: from :min to :max.',
        'string' => ':Attribute: from :min to :max characters.',
    ],
    'max' => [
        'array' => ':Attribute: at most :max of them.',
        'file' => ':Attribute: at most :max KB.',
        'numeric' => ':Attribute: at most :max.',
        'string' => ':Attribute: at most :max characters.',
    ],
    'min' => [
        'array' => ':Attribute: at least :min of them.',
        'file' => ':Attribute: at least :min KB.',
        'numeric' => ':Attribute: at least :min.',
        'string' => ':Attribute: at least :min characters.',
    ],
    'size' => [
        'array' => ':Attribute: exactly :size of them.',
        'file' => ':Attribute: exactly :size KB.',
        'numeric' => ':Attribute: exactly :size.',
        'string' => ':Attribute: this names nothing that is there.',
    ],
];
