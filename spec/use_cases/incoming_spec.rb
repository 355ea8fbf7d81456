require_relative "../app_helper"

RSpec.describe UseCases::IncomingMails, at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:series_id) { series(marit, {required: wen}) }
  let(:meetings) { meeting_ids(series_id) }
  let(:uid) { Loading::SeriesContent.uid(series_id) }

  before { use(UseCases::Invitations, marit).send_all(id: key, series_id: series_id) }

  def mail(ical, from: "wen@skerrybuoy.example", more: "")
    message = ::Mail.new(from: from, to: Settings.mail_from, subject: "Re: Round")
    message.text_part = ::Mail::Part.new(content_type: "text/plain", body: "Answer")
    message.add_part(
      ::Mail::Part.new(content_type: "text/calendar; method=#{ical[/METHOD:(\w+)/, 1]}; charset=UTF-8", body: ical)
    )
    described_class.new(clock: clock).keep(sender: from, source: "#{more}#{message.encoded}")
    described_class.new(clock: clock).read_next
    Records::IncomingMail.order(:created_at, :id).last
  end

  def ical(
    method, partstat: nil, attendee: "wen@skerrybuoy.example", recurrence: nil, start: nil, sequence: 0,
    stamp: clock.now, more: ""
  )
    lines = [
      "BEGIN:VCALENDAR",
      "VERSION:2.0",
      "PRODID:x",
      "METHOD:#{method}",
      "BEGIN:VEVENT",
      "UID:#{uid}",
      "SEQUENCE:#{sequence}",
      "DTSTAMP:#{stamp.strftime("%Y%m%dT%H%M%SZ")}",
      "ORGANIZER:mailto:#{Settings.mail_from}",
      "ATTENDEE#{";PARTSTAT=#{partstat}" if partstat}:mailto:#{attendee}",
      ("RECURRENCE-ID:#{recurrence}" if recurrence),
      *(["DTSTART:#{start}", "DURATION:PT45M"] if start),
      *more.lines(chomp: true),
      "END:VEVENT",
      "END:VCALENDAR",
      ""
    ]
    lines.compact.join("\r\n")
  end

  def answers =
    Records::Meeting
      .where(series_id: series_id)
      .in_order
      .map { |meeting| Records::Answer.find_by(meeting_id: meeting.id, person_id: wen)&.answer }

  it "takes an answer to the whole run, and one to a single meeting" do
    expect(mail(ical("REPLY", partstat: "ACCEPTED", more: "COMMENT:Gladly\\, as always"))).to have_attributes(
      state: "taken", outcome: "applied"
    )
    expect(answers).to eq ["accepted"] * 6
    # 7 December 09:30 in Oslo is 08:30 UTC.
    expect(
      mail(ical("REPLY", partstat: "DECLINED", recurrence: "20261207T083000Z", stamp: clock.now + 60))
    ).to have_attributes(outcome: "applied")
    expect(answers).to eq %w[accepted declined accepted accepted accepted accepted]
    expect(Records::Answer.find_by!(answer: "accepted")).to have_attributes(note: "Gladly, as always", way: "mail")
    expect(
      use(Views::History, marit).show(series_id)[:events].map { |event| event[:words] }
    ).to include "Wen Halloran is away on 7 December (by mail)"
  end

  # RFC 5546 2.1.5
  it "lets an old or repeated answer change nothing" do
    mail(ical("REPLY", partstat: "ACCEPTED", stamp: clock.now - 60))
    outcomes = [
      mail(ical("REPLY", partstat: "DECLINED", stamp: clock.now - 90)),
      mail(ical("REPLY", partstat: "ACCEPTED", stamp: clock.now - 60), more: "X-Again: 1\r\n")
    ].map(&:outcome)
    expect([outcomes, answers.uniq]).to eq [%w[ignored-stale ignored-duplicate], ["accepted"]]
    same = described_class.new(clock: clock)
    expect(same.keep(sender: "wen@skerrybuoy.example", source: Records::IncomingMail.first.source)).to be false
  end

  it "does not take an answer to an earlier version, which has another time" do
    use(UseCases::MeetingChanges, marit).move(meeting_id: meetings.first, version: 0, local_start: "2026-12-01T10:00")
    use(UseCases::Invitations, marit).send_all(id: key, series_id: series_id)
    expect(mail(ical("REPLY", partstat: "ACCEPTED", sequence: 0)).outcome).to eq "ignored-stale"
    expect(mail(ical("REPLY", partstat: "ACCEPTED", sequence: 1)).outcome).to eq "applied"
  end

  # RFC 3464: a mail service that had taken a mail reports that it could not deliver it, or that it did.
  it "notes where the person stands that an address fails, until a later mail gets through" do
    report = lambda do |reason, action, status|
      id = UseCases::Outbox.new.message.message_id(reason)
      described_class.new(clock: clock).keep(
        sender: "",
        source:
          "MIME-Version: 1.0\r\nContent-Type: multipart/report; boundary=b\r\n\r\n--b\r\n" \
            "Content-Type: message/delivery-status\r\n\r\nReporting-MTA: dns; x\r\n\r\n" \
            "Final-Recipient: rfc822; wen@skerrybuoy.example\r\nAction: #{action}\r\nStatus: #{status}\r\n" \
            "Diagnostic-Code: smtp; #{status} so it is\r\n\r\n--b\r\nContent-Type: text/rfc822-headers\r\n\r\n" \
            "Message-ID: <#{id}>\r\n\r\n--b--\r\n"
      )
      described_class.new(clock: clock).read_next
      clock.now += 1
      Records::IncomingMail.order(:received_at).last.outcome
    end
    invitation = Records::Mail.find_by(recipient: "wen@skerrybuoy.example")
    Records::Mail.update_all(state: "sent", sent_at: clock.now)
    failing = -> do
      use(Views::AnswerTable, marit).show(series_id)[:people].find { |one| one[:name] == "Wen Halloran" }[:failing]
    end
    expect([report.call(invitation.reason, "failed", "5.1.1"), failing.call]).to eq ["report", "5.1.1 so it is"]
    expect(
      use(Views::History, marit).mails(series_id)[:mails].map { |one| one.values_at(:recipient, :state, :error) }
    ).to include ["wen@skerrybuoy.example", "failed", "5.1.1 so it is"]
    # A worker that settles only now must not overwrite it.
    UseCases::Outbox.new(clock: clock).send(:settle, invitation.tap { |mail| mail.claim = "mine" }, state: "sent")
    expect(invitation.reload.state).to eq "failed"
    clock.now += 10
    use(UseCases::Invitations, marit).remind_silent(id: key, meeting_id: meetings.first)
    reminder = Records::Mail.where("reason like 'remind:%'").find_by(recipient: "wen@skerrybuoy.example")
    reminder.update!(state: "sent", sent_at: clock.now)
    expect([report.call(reminder.reason, "delivered", "2.1.5"), failing.call, reminder.reload.state]).to eq [
      "report", nil, "delivered"
    ]
    expect(report.call("never sent", "failed", "5.1.1")).to eq "not-ours"
    clock.now += 8 * 86_400
    expect { described_class.new(clock: clock).sweep }.to change {
      Records::IncomingMail.distinct.pluck(:outcome).sort
    }.from(%w[not-ours report]).to(%w[not-ours])
  end

  it "keeps aside who is not invited, and who answers for somebody else" do
    stranger = mail(ical("REPLY", partstat: "ACCEPTED", attendee: "stranger@x.example"), from: "stranger@x.example")
    forged = mail(ical("REPLY", partstat: "DECLINED", attendee: "marit@skerrybuoy.example"))
    expect([stranger.outcome, forged.outcome, answers.compact]).to eq ["party-crasher", "forged", []]
    expect(use(Views::AnswerTable, marit).show(series_id)[:aside].map { |one| one[:outcome] }).to match_array %w[
      forged
      party-crasher
    ]
    expect(mail(ical("CANCEL", attendee: "wen@skerrybuoy.example")).outcome).to eq "not-organizer"
    expect(Records::Meeting.where(state: "called_off").count).to eq 0
  end

  it "shows another time somebody offers beside everyone's calendars; taken, it moves the meeting" do
    mail(ical("COUNTER", recurrence: "20261207T083000Z", start: "20261208T130000Z", more: "COMMENT:Monday is full"))
    offered = use(Views::AnswerTable, marit).show(series_id)[:offered_times].first
    expect(offered).to include(
      note: "Monday is full", local_start: Core::WallTime.parse("2026-12-08T14:00"),
      fit: "Marit Hauge and Wen Halloran unknown"
    )
    use(UseCases::OfferedTimes, marit).settle(id: offered[:id], take: true)
    expect(Records::Meeting.find(meetings[1]).starts_at).to eq Time.utc(2026, 12, 8, 13)
    mail(ical("COUNTER", recurrence: "20261214T083000Z", start: "20261215T130000Z"))
    use(UseCases::OfferedTimes, marit).settle(
      id: use(Views::AnswerTable, marit).show(series_id)[:offered_times].first[:id], take: false
    )
    declined = ::Mail.new(Records::Mail.find_by("reason like 'decline:%'").source)
    expect(declined.all_parts.last.decoded).to include "METHOD:DECLINECOUNTER",
      "RECURRENCE-ID;TZID=Europe/Oslo:20261214T093000"
  end

  it "sends the invitation again to one who asks (REFRESH)" do
    expect { mail(ical("REFRESH")) }.to change { Records::Mail.where(person_id: wen).count }.by(1)
  end

  [
    "",
    "BEGIN:VCALENDAR",
    "From: x\r\n\r\nhello",
    "Content-Type: text/calendar\r\n\r\nBEGIN:VCALENDAR\r\nMETHOD:REPLY\r\nEND:VCALENDAR\r\n",
    "Content-Type: text/calendar\r\n\r\n\xFF\xFE\x00",
    "Content-Type: multipart/mixed; boundary=\"x\"\r\n\r\n--x\r\n--x--"
  ].each do |source|
    it "keeps #{source[0, 40].inspect} and goes on" do
      described_class.new(clock: clock).keep(sender: "x@x.example", source: source.b)
      expect(described_class.new(clock: clock).read_next).to be true
      expect(Records::IncomingMail.last.state).to match(/aside|unreadable/)
      expect(use(Views::IncomingMails, marit).unreadable[:mails].size).to eq 1
    end
  end

  describe "a series changed as a whole" do
    it "takes what was prepared along to the new dates, the k-th to the k-th, and puts the rest on the last sheet" do
      topics = meetings.first(4).map.with_index { |id, i| topic(id, marit, "Topic #{i}") }
      use(UseCases::Answers, wen).keep(series_id: series_id, person_id: wen, answer: "accepted")
      told = use(UseCases::SeriesRun, marit).change(
        series_id: series_id,
        version: Records::Series.find(series_id).lock_version,
        from_meeting_id: meetings[1],
        run: {
          local_start: "2026-12-09T14:00", time_zone: "Europe/Oslo", length_min: 60,
          rule: "FREQ=WEEKLY;BYDAY=WE;COUNT=2"
        }
      )
      expect(told).to eq(
        moved: 2, added: 0, without_date: 3, topics_moved_on: 1, papers_moved_on: 0, lines_moved_on: 0
      )
      starts = Records::Meeting.in_order.map { |meeting| Core::Zone["Europe/Oslo"].wall(meeting.starts_at).to_s }
      expect(starts).to eq %w[2026-11-30T09:30:00 2026-12-09T14:00:00 2026-12-16T14:00:00]
      standing = topics.map { |id| Records::Topic.find(id).meeting_id }
      expect(standing).to eq [meetings[0], meetings[1], meetings[2], meetings[2]]
      expect(Records::Answer.where.not(answer: "none").pluck(:meeting_id)).to eq [meetings[0]]
      expect(Records::Answer.where.not(lapsed_at: nil).pluck(:meeting_id)).to match_array meetings[1, 2]
    end

    it "is called off and brought back, all later meetings at once, and everybody is told" do
      use(UseCases::SeriesRun, marit).call_off(series_id: series_id, reason: "No money", from_meeting_id: meetings[2])
      expect(Records::Meeting.in_order.pluck(:state)).to eq %w[
        planned
        planned
        called_off
        called_off
        called_off
        called_off
      ]
      changes = use(Views::Invitation, marit).untold(Records::Series.find(series_id))[:changes]
      expect(changes.map { |change| change[:after] }.join).to include "until 7 December 2026: 2 meetings"
      expect(use(UseCases::SeriesRun, marit).bring_back(series_id)).to eq 4
      expect(use(Views::Invitation, marit).untold(Records::Series.find(series_id))[:people]).to eq 0
    end
  end

  it "follows groups: who joins one gets the coming meetings, who leaves is taken off, and the others hear nothing" do
    lars = person("Lars Ekeli")
    group = key
    use(UseCases::Groups, marit).add(id: group, name: "Crew", person_ids: [lars])
    version = Records::Series.find(series_id).lock_version
    use(UseCases::Series, marit).change(
      id: series_id, version: version, title: "Monday mooring round", members: [{person_id: wen, role: "required"}],
      groups: [{group_id: group, role: "optional"}],
      guests: [{id: key, name: "Yard", email: "Yard@X.example", role: "informed"}]
    )
    expect(
      use(Views::Invitation, marit).preview(series_id: series_id)[:recipients].to_h do |one|
        [one[:name], one[:what]]
      end
    ).to eq("Lars Ekeli" => "invited", "Yard" => "invited", "Wen Halloran" => "nothing")
    use(UseCases::Invitations, marit).send_all(id: key, series_id: series_id)
    use(UseCases::Groups, marit).change(id: group, version: 0, name: "Crew", person_ids: [])
    expect(
      use(Views::Invitation, marit).preview(series_id: series_id)[:recipients].to_h do |one|
        [one[:name], one[:what]]
      end
    ).to include("Lars Ekeli" => "taken off", "Wen Halloran" => "nothing")
    expect(use(Views::People, marit).list[:people].map { |one| one[:name] }).not_to include "Yard"
  end

  # RFC 5546 3.2.2.3: the one who cannot answers DELEGATED and names who comes; the other answers with DELEGATED-FROM.
  describe "passing on" do
    let(:other) { "ATTENDEE;CN=Odd Berge;DELEGATED-FROM=\"mailto:wen@skerrybuoy.example\":mailto:odd@harbour.example" }
    let(:second) { "20261207T083000Z" }

    def allow = use(UseCases::MeetingChanges, marit).set_options(
      meeting_id: meetings[1], pass_on: true, answers_asked: nil, sign_up: nil, sign_up_limit: nil, remind_min: nil
    )

    def pass_on(recurrence: second, to: "odd@harbour.example", more: other)
      text = ical("REPLY", partstat: "DELEGATED", recurrence: recurrence, more: more)
      mail(to ? text.sub("PARTSTAT=DELEGATED", "PARTSTAT=DELEGATED;DELEGATED-TO=\"mailto:#{to}\"") : text)
    end

    def from_odd(partstat, recurrence: nil, stamp: clock.now)
      mail(
        ical("REPLY", partstat: partstat, attendee: "odd@harbour.example", recurrence: recurrence, stamp: stamp),
        from: "odd@harbour.example"
      )
    end

    it "asks who is named to that one meeting, and takes their answer to it, with or without saying which" do
      allow
      expect(pass_on).to have_attributes(state: "taken", outcome: "delegated")
      expect(answers).to eq [nil, "declined", nil, nil, nil, nil]
      substitute = Records::Substitute.includes(:person).first
      expect([substitute.person.name, substitute.meeting_id]).to eq ["Odd Berge", meetings[1]]
      given = -> { Records::Answer.find_by(meeting_id: meetings[1], person_id: substitute.person_id)&.answer }
      expect([from_odd("ACCEPTED").outcome, given.call]).to eq %w[applied accepted]
      expect([from_odd("DECLINED", recurrence: second, stamp: clock.now + 60).outcome, given.call]).to eq %w[
        applied
        declined
      ]
      expect(
        [from_odd("ACCEPTED", recurrence: "20261214T083000Z", stamp: clock.now + 90).outcome, given.call]
      ).to eq %w[no-such-meeting declined]
      expect(from_odd("ACCEPTED", recurrence: second, stamp: clock.now - 90).outcome).to eq "ignored-stale"
    end

    {
      "where the keeper has not allowed it" => [false, {}, /may not be passed on/],
      "for all meetings at once" => [true, {recurrence: nil}, /passes all meetings on to odd@harbour.example/],
      "to nobody" => [true, {to: nil, more: ""}, /does not say to whom/],
      "to somebody who is asked already" => [
        true, {to: "marit@skerrybuoy.example", more: ""}, /asked to this meeting already/
      ]
    }.each do |situation, (allowed, wish, remark)|
      it "is kept aside and shown #{situation}" do
        allow if allowed
        kept = pass_on(**wish)
        expect([kept.state, kept.outcome, Records::Substitute.count, answers.compact]).to eq [
          "aside", "delegated", 0, []
        ]
        expect(kept.remark).to match remark
      end
    end

    it "ends for a single meeting that has moved past" do
      allow
      pass_on
      clock.now = Time.utc(2026, 12, 8)
      expect(from_odd("ACCEPTED", recurrence: second).outcome).to eq "ignored-stale"
    end
  end
end
