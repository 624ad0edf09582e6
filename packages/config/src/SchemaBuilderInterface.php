<?php

declare(strict_types=1);

namespace League\Config;

use Nette\Schema\Schema;

/**
 * Takes the schema of options.
 */
interface SchemaBuilderInterface
{
    /**
     * Registers the schema of a top-level option.
     */
    public function addSchema(string $key, Schema $schema): void;
}
