<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * What a line of a list says of somebody's time.
 */
final readonly class CapacityLine
{
    /**
     * @param  int  $number of the list, counted from one
     * @param  string  $text as it was typed
     * @param  string  $person by name or mail address
     * @param  ?int  $minutes a day; null where the line says nothing of it
     * @param  list<string>  $daysOff as YYYY-MM-DD, in order
     * @param  ?string  $problem why it cannot be taken
     */
    public function __construct(
        public int $number,
        public string $text,
        public string $person,
        public ?int $minutes = null,
        public array $daysOff = [],
        public ?string $problem = null,
    ) {}
}
