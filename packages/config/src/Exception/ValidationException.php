<?php

declare(strict_types=1);

namespace League\Config\Exception;

use Nette\Schema\ValidationException as SchemaViolation;

/**
 * Values that do not fit the schema.
 */
final class ValidationException extends InvalidConfigurationException
{
    /** @var list<string> */
    private readonly array $messages;

    public function __construct(SchemaViolation $violation)
    {
        parent::__construct($violation->getMessage(), (int) $violation->getCode(), $violation);
        $this->messages = array_values($violation->getMessages());
    }

    /**
     * Each thing that does not fit.
     *
     * @return list<string>
     */
    public function getMessages(): array
    {
        return $this->messages;
    }
}
