require_relative "../app_helper"
require "open3"
require_relative "../../bin/lib/local_database"

RSpec.describe "An installation", :timeless do
  it "keeps its secrets in files that nobody else may read, made once" do
    Dir.mktmpdir do |dir|
      allow(Settings).to receive(:var).and_return(dir)
      texts = Array.new(8) { Thread.new { Settings.kept("db_password") { SecureRandom.hex(24) } } }.map(&:value)
      expect([texts.uniq.size, Dir.children(dir), File.stat(File.join(dir, "db_password")).mode & 0o777]).to eq [
        1, ["db_password"], 0o600
      ]
    end
  end

  it "lets nobody else look into its folder, and runs its database as a user of its own" do
    Dir.mktmpdir do |dir|
      File.chmod(0o755, dir)
      var = File.join(dir, "var")
      database = LocalDatabase.new(var: var, port: 1)
      expect([File.stat(var).mode & 0o777, File.stat(File.join(var, "log")).mode & 0o777]).to eq [0o711, 0o700]
      expect(database.command).to include(
        Process.uid.zero? ? "--user=mysql" : "--datadir=#{var}/db", "--max-allowed-packet=64M"
      )
    end
  end

  # From the contract to the request to the rule: each lets through what the next takes.
  {
    "addCalendar" => ["/api/people/x/calendars", Core::ICalendar::Reader::MOST_BYTES],
    "replaceCalendarFile" => ["/api/calendars/x/file", Core::ICalendar::Reader::MOST_BYTES],
    "previewPeopleImport" => ["/api/people-import/preview", UseCases::PeopleImport::MOST_BYTES],
    "addOutsideMeeting" => ["/api/outside-meetings", UseCases::OutsideMeetings::MOST_BYTES]
  }.each do |operation, (path, most)|
    it "lets #{operation} take a file as large as it says, and not much more" do
      ref = Api::Contract.body_schema(operation).value["$ref"]
      base64 = ["x" * most].pack("m0").bytesize
      expect(Api::Contract.schema(ref).value.dig("properties", "content", "maxLength")).to be_between(
        base64, base64 + 2_000
      )
      expect(Api::Limits.of(path)).to be_between(base64 + 500, base64 + 5_000)
      expect(Api::Limits::MOST).to be <= 7_000_000 # config/puma.rb
    end
  end

  it "has a database that takes as much as the limits allow" do
    packet = Records::Base.connection_pool.with_connection do |connection|
      connection.select_value("select @@max_allowed_packet")
    end
    largest = [Core::ICalendar::Reader::MOST_BYTES, Mailing::Incoming::MOST_BYTES].max
    expect(packet).to be > largest * 2 + 1_000_000 # written as hexadecimal digits
    calendar = Records::Calendar.create!(id: key, person_id: person("Wen Halloran"), kind: "file", name: "Large")
    calendar.update!(incoming: "x" * Core::ICalendar::Reader::MOST_BYTES)
    expect(calendar.reload.incoming.bytesize).to eq Core::ICalendar::Reader::MOST_BYTES
  end
end
