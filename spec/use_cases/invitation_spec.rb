require_relative "../app_helper"
require "open3"
require "mail"
require "icalendar"

# The invitation as other libraries read it: ical.js (npm), and python-icalendar with python-dateutil (Debian).
RSpec.describe "The invitation mail", at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }

  def mail_for(series_id)
    use(UseCases::Invitations, marit).send_all(id: key, series_id: series_id)
    delivered.last
  end

  # What the worker hands over, and what it has handed over so far to Wen.
  def delivered
    @delivered ||= []
    post = Object.new.tap { |one| one.instance_variable_set(:@taken, @delivered) }
    def post.deliver(to:, source:, **) = @taken << source
    nil while UseCases::Outbox.new(clock: clock).deliver(post).positive?
    @delivered.map { |source| ::Mail.new(source) }.select { |mail| mail.to == ["wen@skerrybuoy.example"] }
  end

  def calendar_of(mail) = mail.parts.find { |part| part.mime_type == "text/calendar" }

  def run(*command, input)
    output, error, status = Open3.capture3(*command, stdin_data: input)
    raise error unless status.success?

    JSON.parse(output)
  end

  def instants_by_ical_js(ical) = run("node", File.expand_path("../support/expand.mjs", __dir__), ical)

  def instants_by_python(ical) = run("/usr/bin/python3", File.expand_path("../support/expand.py", __dir__), ical)

  [
    ["weekly, across both clock changes", "2027-03-01T09:30", "FREQ=WEEKLY;BYDAY=MO;COUNT=40", "Europe/Oslo", []],
    ["the first Friday in Halifax", "2026-12-04T10:00", "FREQ=MONTHLY;BYDAY=1FR;COUNT=12", "America/Halifax", []],
    [
      "until a date, in Lisbon", "2026-12-01T14:00", "FREQ=WEEKLY;INTERVAL=2;BYDAY=TU;UNTIL=20271130T235959",
      "Europe/Lisbon", []
    ],
    ["dates set by hand", "2026-12-01T10:00", nil, "Europe/Oslo", %w[2026-12-08T10:00 2027-04-02T10:00]],
    ["a single meeting", "2026-12-01T10:00", nil, "Europe/Oslo", []]
  ].each do |situation, start, rule, zone, dates|
    it "gives #{situation} at the same instants as the series page" do
      id = key
      use(UseCases::Series, marit).create(
        id: id,
        title: "Round; with, marks",
        purpose: "Line one\nline two",
        call: {
          url: "https://calls.example/round?a=1;b=2,3", passcode: "47;11", dial_in: "+47 55 00 00 00"
        },
        members: [{person_id: wen, role: "required"}],
        run: {
          local_start: start, time_zone: zone, length_min: 45, rule: rule, dates: dates
        }
      )
      second = meeting_ids(id)[1]
      if second
        use(UseCases::MeetingChanges, marit).move(
          meeting_id: second, version: 0,
          local_start: (Core::Zone[zone].wall(Records::Meeting.find(second).starts_at) + 86_400).to_s
        )
      end
      off = meeting_ids(id)[2]
      state(off, marit, "called_off", reason: "Storm") if off
      shown =
        use(Views::SeriesMeetings, marit).list(id)[:meetings]
          .reject { |meeting| meeting[:state] == "called_off" }
          .map { |meeting| meeting[:starts_at].iso8601 }
          .sort
      ical = calendar_of(mail_for(id)).decoded
      expect(shown).not_to be_empty
      expect(instants_by_ical_js(ical)).to eq shown
      expect(instants_by_python(ical)).to eq shown
    end
  end

  it "is text, HTML and a REQUEST, each saying when, where and why" do
    mail = mail_for(series(marit, {required: wen}, purpose: "The week at sea", place: "Boat shed"))
    expect(mail.parts.map(&:mime_type)).to eq %w[text/plain text/html text/calendar]
    expect(calendar_of(mail).content_type).to match(/method=REQUEST/i)
    mail
      .parts
      .first(2)
      .each do |part|
        expect(part.decoded).to include(
          "Every Monday, 09:30–10:15 Oslo time", "Boat shed", "The week at sea", "04:30 Halifax time"
        )
      end
    event = Icalendar::Calendar.parse(calendar_of(mail).decoded).first.events.first
    expect([event.summary, event.location, event.sequence, event.organizer.to_s]).to eq [
      "Monday mooring round", "Boat shed", 0, "mailto:meetings@skerrybuoy.example"
    ]
    expect(event.attendee.map(&:to_s)).to match_array %w[
      mailto:marit@skerrybuoy.example
      mailto:wen@skerrybuoy.example
    ]
  end

  it "carries the agenda and what is left over, in the mail and as a PDF beside it" do
    id = series(marit, {required: wen})
    topic(meeting_ids(id).first, marit, "Batteries", length_min: 12)
    mail = mail_for(id)
    expect(mail.mime_type).to eq "multipart/mixed"
    expect(mail.parts.first.parts.map(&:mime_type)).to eq %w[text/plain text/html text/calendar]
    expect(mail.text_part.decoded).to include "Agenda of Monday 30 November 2026", "Batteries, 12 min"
    expect([mail.attachments.first.filename, mail.attachments.first.decoded[0, 5]]).to eq ["agenda.pdf", "%PDF-"]
  end

  it "carries the papers of the next meeting, and links what is too large" do
    id = series(marit, {required: wen})
    stub_const("Loading::NextPapers::MOST_ATTACHED_BYTES", 12)
    {"chart.txt" => "depth", "log.txt" => "storm again", "tide.txt" => "low"}.each do |name, bytes|
      paper = key
      use(UseCases::Papers, marit).begin_paper(
        id: paper, meeting_id: meeting_ids(id).first, name: name, size_bytes: bytes.bytesize
      )
      use(UseCases::Papers, marit).put_piece(id: paper, number: 0, bytes: bytes)
      clock.now += 1
    end
    expect(use(Views::Invitation, marit).preview(series_id: id)[:attachments]).to eq %w[chart.txt tide.txt]
    mail = mail_for(id)
    expect(mail.attachments.map { |one| [one.filename, one.decoded] }).to eq [%w[chart.txt depth], %w[tide.txt low]]
    expect(mail.text_part.decoded).to include "log.txt, too large to attach: behind your private link"
  end

  # RFC 7986 5.11; programs differ in which they show (common practice), so it stands in all three.
  it "says how to get into the call beside the room, in the words and in CONFERENCE" do
    id = series(marit, {required: wen}, call: {url: "https://calls.example/round", passcode: "4711"})
    mail = mail_for(id)
    event = Icalendar::Calendar.parse(calendar_of(mail).decoded).first.events.first
    expect([event.location, event.description, event.conference.join].map(&:to_s)).to match [
      "https://calls.example/round", include("https://calls.example/round\n  Passcode 4711"),
      include("https://calls.example/round")
    ]
    said = mail.parts.first(2).map(&:decoded)
    expect(said).to all include("https://calls.example/round", "Passcode 4711")
    use(UseCases::Series, marit).change(
      id: id,
      version: Records::Series.find(id).lock_version,
      title: "Monday mooring round",
      place: "Boat shed",
      members: [{person_id: wen, role: "required"}],
      call: {
        url: "https://calls.example/new"
      }
    )
    expect(use(Views::SeriesPage, marit).show(id)[:told][:untold][:changes].map { |change| change[:label] }).to eq %w[
      Where
      Call
    ]
    expect(
      Icalendar::Calendar.parse(calendar_of(mail_for(id)).decoded).first.events.first.location.to_s
    ).to eq "Boat shed"
  end

  it "lets nothing typed become a header or a tag" do
    id = series(marit, {required: wen}, title: "Round\r\nBcc: evil@x.example <script>alert(1)</script>")
    mail = mail_for(id)
    expect(mail.bcc).to be_nil
    expect(mail.parts[1].decoded).not_to include "<script"
    expect(calendar_of(mail).decoded.lines.grep(/\ABcc/)).to be_empty
  end

  it "counts a new version when people must hear of a change, and mails each person each version once" do
    id = series(marit, {required: wen})
    first = mail_for(id)
    expect { mail_for(id) }.not_to(change { Records::Mail.count })
    view = use(Views::SeriesPage, marit).show(id)
    use(UseCases::Series, marit).change(
      id: id, version: view[:version], title: "Mooring round", members: [{person_id: wen, role: "required"}]
    )
    expect(use(Views::SeriesPage, marit).show(id)[:told][:state]).to eq "changed"
    mail_for(id)
    versions = delivered.map { |mail| calendar_of(mail).decoded.gsub("\r\n ", "") }
    expect(
      [versions.map { |ical| ical[/SEQUENCE:(\d+)/, 1] }, versions.map { |ical| ical[/UID:(.*)/, 1] }.uniq.size]
    ).to eq [%w[0 2], 1]
    expect(delivered.last.parts.first.decoded).to include "Title: Mooring round (was: Monday mooring round)"
    expect(first.message_id).not_to be_nil
  end
end
