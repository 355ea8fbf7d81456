require "open3"

# The arrows of ARCHITECTURE.md: web → API → use cases → views → loading → records → core; a view writes nothing.
RSpec.describe "The layers" do
  root = File.expand_path("..", __dir__)
  writes = /\.(create|update|upsert|insert|destroy|save|increment)(!|_all)|\.delete(_all)?\b|\.touch\b|\bwrite do/
  {
    "lib/core" => /
      \b(Records|UseCases|Api|Mailing|ActiveRecord|ActiveSupport|Sinatra|Rack|Settings|ENV|File|SecureRandom)\b|
      Time\.now|Date\.today|\brand\b
    /x,
    "lib/records" => /\b(Loading|Views|UseCases|Api|Mailing|Sinatra|Rack|ENV)\b/,
    "lib/mailing" => /\b(Records|Loading|Views|UseCases|Api|ActiveRecord|Sinatra|Rack|ENV)\b/,
    "lib/loading" => /\b(Views|UseCases|Api|Sinatra|Rack|ENV)\b|Time\.now|#{writes}/,
    "lib/views" => /\b(UseCases|Api|Sinatra|Rack|ENV)\b|Time\.now|#{writes}/,
    "lib/use_cases" => /\b(Api|Sinatra|Rack|ENV)\b|Time\.now/,
    "lib/api" => /\bENV\b|Records::(?!Key|Change|Base\.connection_pool)|\bMailing\b/,
    "stand_ins" => /\b(Core|Records|UseCases|Api|Mailing)::/
  }.each do |folder, forbidden|
    it "keep #{folder} from what lies above it" do
      offences = Dir[File.join(root, folder, "**/*.rb")].flat_map do |path|
        File
          .readlines(path)
          .each_with_index
          .filter_map do |line, i|
            "#{path.delete_prefix("#{root}/")}:#{i + 1}: #{line.strip}" if line.sub(/#.*/, "").match?(forbidden)
          end
      end
      expect(offences).to be_empty
    end
  end

  it "let the browser fetch in one place only" do
    offences =
      Dir[File.join(root, "web/src/**/*.{ts,vue}")]
        .reject { |path| path.end_with?("client.ts", "schema.d.ts", "worker/sw.ts") } # a worker is no page
        .select { |path| File.read(path).match?(/\bfetch\(|XMLHttpRequest/) }
    expect(offences).to be_empty
  end

  it "need no gem that only tests have" do
    script = <<~RUBY
      require "./config/boot"
      require "./config/loader"
      LOADER.eager_load(force: true)
      require "./stand_ins/post/correspondent"
      require "./stand_ins/calendars/pages"
    RUBY
    env = {
      "BUNDLE_GEMFILE" => "#{root}/Gemfile", "BUNDLE_PATH" => "#{root}/vendor/bundle",
      "BUNDLE_WITHOUT" => "test:development"
    }
    output, status = Bundler.with_unbundled_env do
      Open3.capture2e(env, "bundle", "exec", "ruby", "-C", root, "-e", script)
    end
    expect(status).to be_success, output
  end

  it "leave the loader nothing to complain of" do
    require_relative "../config/boot"
    expect { LOADER.eager_load(force: true) }.not_to raise_error
  end
end
