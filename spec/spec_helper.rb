require_relative "support/loopback_only"
require_relative "../config/loader"
require "json"

RSpec::Matchers.define_negated_matcher :not_include, :include

# The layers are loaded by what a folder's specs need: core alone, the database, or the browser.
RSpec.configure do |config|
  config.disable_monkey_patching!
  config.order = :random
  Kernel.srand config.seed
  config.expect_with(:rspec) { |expectations| expectations.max_formatted_output_length = 1_000 }
end

# Vectors with their sources; see spec/reference/README.md.
def reference(name) = JSON.parse(File.read(File.expand_path("reference/#{name}.json", __dir__)))
