<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Casebook\CustomField;

/**
 * What a file of cases may refer to in the project that it goes to.
 */
final readonly class ImportContext
{
    /**
     * @param  array<string, string>  $types      values by name in lower case; a type that is not there is made
     * @param  array<string, string>  $priorities values by name in lower case
     * @param  array<string, string>  $people     ids by e-mail address and by name, in lower case
     * @param  array<string, string>  $routines   ids by name in lower case
     * @param  array<string, string>  $tables     ids by name in lower case
     * @param  array<string, CustomField>  $fields     by name in lower case
     * @param  array<string, string>  $requirements ids by key and by title, in lower case
     */
    public function __construct(
        public array $types = ['functional' => 'functional'],
        public array $priorities = ['critical' => 'critical', 'high' => 'high', 'medium' => 'medium', 'low' => 'low'],
        public array $people = [],
        public array $routines = [],
        public array $tables = [],
        public array $fields = [],
        public array $requirements = [],
    ) {}
}
