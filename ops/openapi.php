<?php

declare(strict_types=1);

// Prints the API's description, made from the attributes in app.

require __DIR__ . '/../vendor/autoload.php';

$openapi = (new OpenApi\Generator())->setVersion('3.1.0')->generate([__DIR__ . '/../app']);
$spec = json_decode($openapi?->toJson() ?? throw new RuntimeException('No description came out.'), true, 512, JSON_THROW_ON_ERROR);
// An answer always has all its fields; requests say themselves which they need.
foreach ($spec['components']['schemas'] as $name => $schema) {
    if (!isset($schema['required']) && !str_ends_with($name, 'Request') && isset($schema['properties'])) {
        $spec['components']['schemas'][$name]['required'] = array_keys($schema['properties']);
    }
}
ksort($spec['components']['schemas']);
ksort($spec['paths']);
echo json_encode($spec, JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR), "\n";
