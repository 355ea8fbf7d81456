require_relative "../app_helper"
require_relative "../support/mailbox"

# Mail that waits, comes together, or does not come: as its readers have it.
RSpec.describe "Fewer mails", at: Stage::STORY do
  let(:box) { Mailbox.new(clock) }
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:lars) { person("Lars Ekeli") }
  let(:id) { series(marit, {required: [wen], informed: [lars]}) }
  let(:meetings) { meeting_ids(id) }

  def tell(note: nil)
    use(UseCases::Invitations, marit).send_all(id: key, series_id: id, note: note)
    box.fetch
  end

  def retitle(title)
    use(UseCases::Series, marit).change(
      id: id, version: Records::Series.find(id).lock_version, title: title,
      members: [{person_id: wen, role: "required"}, {person_id: lars, role: "informed"}]
    )
  end

  def wish(person_id, **rest)
    use(UseCases::People, person_id).keep_reminders(
      id: person_id, phone: nil, text_reminders: false, remind_min: nil, **rest
    )
  end

  describe "of several changes in ten minutes" do
    around do |example|
      ENV["LEFT_OVER_GATHER_MINUTES"] = "10"
      example.run
    ensure
      ENV.delete("LEFT_OVER_GATHER_MINUTES")
    end

    before { tell }

    it "makes one, ten minutes after the first, that says all of them against what was told" do
      expect(box.to("wen").map(&:subject)).to eq ["Invitation: Monday mooring round"]
      clock.now += 60
      retitle("Mooring talk")
      sent = key
      use(UseCases::Invitations, marit).send_all(id: sent, series_id: id)
      expect(use(Views::Invitation, marit).progress(sent)).to include(
        waiting: 2, held: 2, held_until: clock.began + 600
      )
      clock.now += 60
      state(meetings[1], marit, "called_off", reason: "Storm")
      expect(tell).to eq []
      clock.now = clock.began + 601
      expect(box.fetch.size).to eq 2
      expect(box.to("wen").size).to eq 2
      text = box.last("wen").text
      expect(text).to include "Title: Mooring talk (was: Monday mooring round)", "called off. Storm"
      expect(box.meetings("wen").size).to eq 5
      clock.now += 700
      retitle("Talk")
      tell
      expect(box.last("wen").text).to include "Title: Talk (was: Mooring talk)"
    end

    it "loses no word that was written with one, and does not wait with what begins within a day or is called off" do
      clock.now += 60
      retitle("Mooring talk")
      tell(note: "A better name.")
      clock.now += 60
      retitle("Talk")
      tell
      clock.now = clock.began + 1_300
      expect(box.fetch.map(&:to).tally.values).to eq [2, 2]
      expect(box.to("wen")[1].text).to include "A better name."
      use(UseCases::SeriesRun, marit).call_off(series_id: id, reason: "No money")
      expect(tell.map(&:subject).uniq).to eq ["Called off: Talk"]
    end
  end

  it "gathers in the morning, on the reader’s wall, what is not about today" do
    wish(wen, mail_digest: true)
    tell
    expect(box.to("wen").size).to eq 1 # invitations come at once
    topic(meetings[0], marit, "Ropes")
    use(UseCases::AgendaSendings, marit).send_agenda(id: key, meeting_id: meetings[0])
    use(UseCases::BroughtTopics, marit).ask_for_topics(id: key, meeting_id: meetings[1])
    box.fetch
    expect([box.to("wen").size, box.to("lars").size]).to eq [1, 2]
    clock.now = Core::Zone["America/Halifax"].instant(Core::WallTime.parse("2026-11-24T06:59"))
    expect(box.fetch.map(&:to)).not_to include "wen@skerrybuoy.example"
    clock.now += 60
    expect(box.fetch.map(&:to)).to eq ["wen@skerrybuoy.example"]
    letter = box.last("wen")
    expect(letter.subject).to eq "This morning: Agenda: Monday mooring round and Topics wanted: Monday mooring round"
    expect(letter.text).to include "1 Ropes", "asks for topics"
    expect(letter.links.keys).to eq ["Agenda, papers and your answer", "Bring a topic"]
    expect(letter.mail.attachments.map(&:filename)).to eq ["agenda.pdf"]
    expect(Records::Mail.where(digest: true).pluck(:state).uniq).to eq ["sent"]
  end

  it "leaves out of the morning’s mail what speaks of something that is gone, and sends the rest" do
    wish(wen, mail_digest: true)
    tell
    topic(meetings[0], marit, "Ropes")
    use(UseCases::AgendaSendings, marit).send_agenda(id: key, meeting_id: meetings[0])
    use(UseCases::BroughtTopics, marit).ask_for_topics(id: key, meeting_id: meetings[1])
    waiting = Records::Mail.where(digest: true).order(:created_at, :id)
    waiting.first.update!(source: nil, person_id: nil)
    clock.now += 86_400
    box.fetch
    expect(box.last("wen").subject).to eq "Topics wanted: Monday mooring round"
    expect(waiting.pluck(:state, :last_error)).to eq [
      ["failed", "Whom it is for is not here any more."], ["sent", nil]
    ]
  end

  it "does not wait with what is about today" do
    wish(wen, mail_digest: true)
    tell
    clock.now = Core::Zone["America/Halifax"].instant(Core::WallTime.parse("2026-11-30T03:00"))
    topic(meetings[0], marit, "Ropes")
    use(UseCases::AgendaSendings, marit).send_agenda(id: key, meeting_id: meetings[0])
    box.fetch
    expect(box.last("wen").subject).to eq "Agenda: Monday mooring round"
  end

  it "sends none of the kinds somebody does without, and all others" do
    wish(wen, mail_without: %w[agenda_changed reminders])
    wish(lars, mail_without: %w[informed_minutes])
    tell
    2.times do |i|
      topic(meetings[0], marit, "Ropes #{i}")
      clock.now += 60
      use(UseCases::AgendaSendings, marit).send_agenda(id: key, meeting_id: meetings[0])
    end
    box.fetch
    expect(box.to("wen").map(&:subject)).to eq ["Invitation: Monday mooring round", "Agenda: Monday mooring round"]
    expect(box.to("lars").last.subject).to start_with "Agenda changed"
    clock.now = Time.utc(2026, 11, 30, 8, 31)
    state(meetings[0], marit, "in_session")
    state(meetings[0], marit, "closed")
    state(meetings[0], marit, "issued")
    box.fetch
    expect(box.to("wen").last.subject).to start_with "Minutes"
    expect(box.to("lars").last.subject).not_to start_with "Minutes"
    expect { wish(lars, mail_without: %w[everything]) }.to raise_error(Core::Invalid) { |error|
      expect(error.pointer).to eq "/mailWithout"
    }
  end
end
