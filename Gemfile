# frozen_string_literal: true

source "https://rubygems.org"

gem "activerecord", "~> 7.2.2"
gem "trilogy"
gem "rake"

gem "sinatra", "~> 4.2"
gem "puma", "~> 8.0"
gem "rack-session"
gem "rack-attack"
gem "json_schemer"
gem "bcrypt"
gem "zxcvbn" # common passwords, and what is made of them

gem "zeitwerk", "~> 2.6.18"
gem "tzinfo", "~> 2.0"

gem "mail"
gem "midi-smtp-server"
gem "public_suffix" # which domains are of one house (DMARC)
gem "icalendar" # the stand-ins and the tests: never what it checks
gem "holidays"
gem "csv"
gem "prawn"
gem "prawn-table"
gem "rubyzip"
gem "matrix" # prawn 2.4 needs it and does not say so
gem "jwt" # the personal links of calls (RFC 7519)

group :test do
  gem "rspec"
  gem "rack-test"
  gem "capybara"
  gem "cuprite"
end

group :development do
  gem "standard", require: false
end
