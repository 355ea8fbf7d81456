require_relative "../app_helper"
require "mail"
require "open3"

# Every message we write, as ical.js (npm) and python-icalendar (Debian) read it, beside what it is meant to say.
# Recurring ones are expanded by both in invitation_spec.rb.
RSpec.describe "Messages", at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:id) do
    series(
      marit,
      {required: wen},
      title: "Round; with, marks",
      purpose: "Æ, ø\nand å",
      call: {
        url: "https://calls.example/a;b", passcode: "4,7"
      },
      options: {
        pass_on: true, answers_asked: true, sign_up: false, sign_up_limit: nil
      }
    )
  end
  let(:meetings) { meeting_ids(id) }
  let(:uid) { Loading::SeriesContent.uid(id) }

  before { wants_own_mail(marit) }

  def last_calendar(address = "wen@skerrybuoy.example")
    sent = []
    post = Object.new.tap { |one| one.define_singleton_method(:deliver) { |to:, source:, **| sent << [to, source] } }
    nil while UseCases::Outbox.new(clock: clock).deliver(post).positive?
    (@sent ||= []).concat(sent)
    parts = @sent.filter_map do |to, source|
      Mail.new(source).all_parts.find { |part| part.mime_type == "text/calendar" } if to == address
    end
    parts.last.decoded
  end

  # @return [Hash] what both read; a difference between them fails
  def read(ical)
    found = [%w[node read.mjs], %w[/usr/bin/python3 read.py]].map do |command, script|
      output, error, status =
        Open3.capture3(command, File.expand_path("../support/#{script}", __dir__), stdin_data: ical)
      raise "#{script}: #{error}\n#{ical}" unless status.success?

      JSON.parse(output)
    end
    expect(found[0]).to eq found[1]
    found[0]
  end

  # Mails of one instant go out in any order.
  def send_all
    clock.now += 1
    use(UseCases::Invitations, marit).send_all(id: key, series_id: id)
  end

  def event(read) = read["parts"].first

  asked = [["mailto:marit@skerrybuoy.example", "NEEDS-ACTION"], ["mailto:wen@skerrybuoy.example", "NEEDS-ACTION"]]

  it "ask, with what is moved and called off (REQUEST, RFC 5546 3.2.2)" do
    use(UseCases::MeetingChanges, marit).move(meeting_id: meetings[1], version: 0, local_start: "2026-12-08T10:00")
    state(meetings[2], marit, "called_off", reason: "Storm")
    send_all
    message = read(last_calendar)
    expect(message["method"]).to eq "REQUEST"
    expect(
      message["parts"].map { |part| part.values_at("name", "uid", "sequence", "status", "attendees", "recurrence") }
    ).to eq [
      ["VEVENT", uid, 0, "CONFIRMED", asked, nil], ["VEVENT", uid, 0, "CONFIRMED", asked, "2026-12-07T09:30:00"]
    ]
  end

  it "take one off, and call all off (CANCEL, RFC 5546 3.2.5)" do
    send_all
    use(UseCases::Series, marit).change(
      id: id, version: Records::Series.find(id).lock_version, title: "Round", members: []
    )
    send_all
    message = read(last_calendar)
    expect([message["method"], event(message).values_at("uid", "status", "attendees")]).to eq [
      "CANCEL", [uid, "CANCELLED", [asked[1]]]
    ]
    use(UseCases::SeriesRun, marit).call_off(series_id: id, reason: "No money")
    send_all
    message = read(last_calendar("marit@skerrybuoy.example"))
    expect([message["method"], event(message)["sequence"] > 0, event(message)["status"]]).to eq [
      "CANCEL", true, "CANCELLED"
    ]
  end

  it "turn down another time (DECLINECOUNTER, RFC 5546 3.2.8)" do
    send_all
    offer = use(UseCases::OfferedTimes, wen).offer(
      id: key, meeting_id: meetings[0], person_id: wen, starts_at: Time.utc(2026, 12, 1, 9),
      ends_at: Time.utc(2026, 12, 1, 10)
    )
    use(UseCases::OfferedTimes, marit).settle(id: offer, take: false)
    message = read(last_calendar)
    expect([message["method"], event(message).values_at("uid", "recurrence", "attendees")]).to eq [
      "DECLINECOUNTER", [uid, "2026-11-30T09:30:00", [["mailto:wen@skerrybuoy.example", nil]]]
    ]
  end

  it "ask somebody to one meeting instead, and take them off it (REQUEST and CANCEL of an instance, RFC 5546 " \
    "3.2.2.3)" do
    send_all
    use(UseCases::Substitutes, wen).send_instead(
      meeting_id: meetings[1], person_id: wen, name: "Odd; Berge", email: "odd@harbour.example"
    )
    message = read(last_calendar("odd@harbour.example"))
    expect([message["method"], event(message).values_at("uid", "recurrence", "attendees")]).to eq [
      "REQUEST", [uid, "2026-12-07T09:30:00", [%w[mailto:odd@harbour.example NEEDS-ACTION]]]
    ]
    clock.now += 1
    use(UseCases::Answers, wen).keep(series_id: id, person_id: wen, answer: "accepted", meeting_id: meetings[1])
    message = read(last_calendar("odd@harbour.example"))
    expect([message["method"], event(message).values_at("status", "recurrence")]).to eq [
      "CANCEL", %w[CANCELLED 2026-12-07T09:30:00]
    ]
  end

  it "answer others, to all and to one (REPLY, RFC 5546 3.2.3)" do
    ical =
      "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nMETHOD:REQUEST\r\nBEGIN:VEVENT\r\nUID:dues@port.example\r\n" \
        "SEQUENCE:4\r\nDTSTAMP:20261124T070000Z\r\nDTSTART;TZID=Europe/Oslo:20261201T100000\r\nDURATION:PT1H\r\n" \
        "RRULE:FREQ=WEEKLY;COUNT=3\r\nSUMMARY:Dues\r\nORGANIZER:mailto:olav@port.example\r\n" \
        "ATTENDEE:mailto:wen@skerrybuoy.example\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
    outside = use(UseCases::OutsideMeetings, wen)
    outside.add_file(ical)
    row = Records::OutsideMeeting.first.id
    {nil => nil, Time.utc(2026, 12, 8, 9) => "2026-12-08T09:00:00"}.each do |recurrence_at, recurrence|
      clock.now += 1
      use(UseCases::OutsideAnswers, wen).answer(
        id: row, answer: recurrence_at ? "declined" : "accepted", recurrence_at: recurrence_at
      )
      message = read(last_calendar("olav@port.example"))
      expect([message["method"], event(message).values_at("uid", "sequence", "recurrence", "attendees")]).to eq [
        "REPLY",
        [
          "dues@port.example", 4, recurrence,
          [["mailto:wen@skerrybuoy.example", recurrence_at ? "DECLINED" : "ACCEPTED"]]
        ]
      ]
    end
  end

  it "publish meetings and busy time (PUBLISH, RFC 5546 3.2.1 and 3.3.1)" do
    invite(id, marit)
    feeds = open_feeds(wen).transform_values do |address|
      address[%r{/([0-9a-f]{40})\.ics\z}, 1]
    end
    meetings_feed = read(Views::Feeds.new(clock: clock).read("meetings", wen, feeds.fetch("meetings")))
    expect([meetings_feed["method"], meetings_feed["parts"].map { |part| part["uid"] }]).to match [
      "PUBLISH", match_array(meetings.map { |meeting| "meeting-#{meeting}@#{Settings.mail_domain}" })
    ]
    busy = read(Views::Feeds.new(clock: clock).read("busy", wen, feeds.fetch("busy")))
    expect([busy["method"], event(busy)["name"]]).to eq %w[PUBLISH VFREEBUSY]
  end
end
