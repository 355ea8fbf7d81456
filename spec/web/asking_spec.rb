require_relative "../web_helper"

RSpec.describe "Asking for times" do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:monday) { today + 7 + (8 - (today + 7).cwday) % 7 }
  let(:oslo) { Core::Zone["Europe/Oslo"] }

  def at(hour, on = monday) = oslo.instant(Core::WallTime.at(on, hour * 3_600))

  # A poll asked by Marit; times at full hours on the Monday.
  def poll(hours: [14, 15], people: [wen], guests: [], **rest)
    id = key
    use(UseCases::TimePolls, marit).create(
      id: id, title: "Dry-dock talk", length_min: 60, time_zone: "Europe/Oslo",
      candidates: hours.map { |hour| {id: key, starts_at: at(hour)} },
      people: people.map { |one| {person_id: one, role: "required"} },
      guests: guests.map { |name|
        {id: key, name: name, email: "#{name.split.first.downcase}@port.example", role: "required"}
      },
      **rest
    )
    id
  end

  def link(id, person_id) = Loading::PollLink.path(id, person_id)

  def guest(name) = Records::Person.find_by!(email: "#{name}@port.example").id

  # The answers of one time, by the hour it begins at.
  def time(clock) = find("fieldset.time", text: /\A#{clock}–/)

  def answer(clock, word) = time(clock).find("label", text: word).click

  def mailed(to) = within_s(15) {
    Records::Mail.where(recipient: to, state: %w[sent delivered]).order(:created_at).last&.source
  }

  it "goes from candidates to a meeting, with two guests and a member" do
    sign_in_as "Marit Hauge"
    visit "/"
    type "/"
    fill_in "Go to or do", with: "Ask for times"
    find(".v-overlay--active input").send_keys(:enter)
    expect(page).to have_css "h1", text: "Ask for times"
    fill_in "Title", with: "Dry-dock talk"
    choose_from "Add a person or group", "Wen Halloran"
    {"Odd Dahl" => "odd@port.example", "Gunnar Vik" => "gunnar@port.example"}.each do |name, email|
      fill_in "Guest's name", with: name
      fill_in "Guest's mail address", with: email
      type :enter
      expect(page).to have_button "Remove: #{name}"
    end
    fill_in "Or type or paste times", with: "#{monday.strftime("%a %-d %b")} 14:00, 15:00"
    click_button "Add these"
    expect(page).to have_content "2 times of 40"
    fill_in "Or type or paste times", with: "never"
    click_button "Add these"
    expect(page).to have_content "Not understood: never"
    # From the picture of the days, by key, and away again.
    expect(page).to have_css ".picture .bar", minimum: 10
    page.execute_script("document.querySelector('.picture [tabindex=\"0\"]').focus()")
    type :down
    type :enter
    expect(page).to have_content "3 times of 40"
    type :enter
    expect(page).to have_content "2 times of 40"
    click_button "Remove #{Core::Words.day(monday)}, 15:00"
    expect(page).to have_content "1 time of 40"
    fill_in "Or type or paste times", with: "#{monday + 1} 10:00"
    click_button "Add these"
    expect_accessible
    click_button "Ask"
    expect(page).to have_css "h1", text: "Dry-dock talk, 60 minutes"
    expect(page).to have_content "0 of 3 have answered"

    mail = Mail.read_from_string(mailed("odd@port.example"))
    visit mail.text_part.decoded[%r{/ask/\S+}]
    page.current_window.resize_to(390, 800)
    expect(page).to have_content "MARIT HAUGE ASKS, ODD DAHL"
    select "Oslo time", from: "Times in"
    answer "14:00", "Suits"
    answer "10:00", "Cannot"
    check "This is my yes", allow_label_click: true
    fill_in "A comment (optional)", with: "By the yard gate"
    expect_accessible
    expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= 390
    click_button "Send my answer"
    expect(page).to have_content "Sent. You can come back and change it"
    visit link(Records::TimePoll.last.id, guest("gunnar"))
    select "Oslo time", from: "Times in"
    # By keyboard alone: s on the first time, then on to the next.
    page.execute_script("document.querySelector('fieldset.time input').focus()")
    type "s"
    type "p"
    page.active_element.send_keys(:enter)
    expect(page).to have_content "Sent."
    visit link(Records::TimePoll.last.id, wen)
    select "Oslo time", from: "Times in"
    answer "14:00", "Suits"
    click_button "Send my answer"
    expect(page).to have_content "Sent."

    page.current_window.resize_to(1280, 800)
    visit "/asking"
    expect(page).to have_content "3 of 3 answered"
    click_link "Dry-dock talk"
    expect(page).to have_css ".plank.best", text: "14:00"
    expect(page).to have_content "Nobody is out. Best."
    expect(page).to have_content "New since you looked".upcase
    expect(page).to have_content "“By the yard gate”"
    expect_accessible
    click_button "Make it the meeting"
    expect(dialog).to have_content "By mail: 3 people get it."
    expect(dialog).to have_content "Odd Dahl has accepted by answering."
    expect(dialog).to have_content "1 other time is let go."
    expect_accessible within: ".v-overlay--active .v-card"
    keep "Make it and tell people"
    expect(page).to have_content "Settled. The invitations are on their way."
    click_link "who is asked"
    expect(page).to have_css "h1", text: "Dry-dock talk"
    invited = within_s(15) do
      Records::Mail.find_by(recipient: "odd@port.example", kind: "invited", state: %w[sent delivered])
    end
    expect(UseCases::Invitations.new(clock: clock).compose(invited)[:text])
      .to include "You were asked for times; this is the one."
    expect(Records::Answer.pluck(:person_id, :answer)).to eq [[guest("odd"), "accepted"]]
  end

  it "needs little to be drawn, and sets no cookie" do
    visit link(poll, wen)
    expect(page).to have_css "fieldset.time"
    expect(bytes_to_draw).to be_between(20_000, 120_000)
    expect(page.driver.cookies).to be_empty
  end

  it "is kept while it is typed, and comes from common time where no calendar tells" do
    sign_in_as "Marit Hauge"
    visit "/common-time"
    find(".v-input", text: "Add a person or group").find(".v-field").click
    find(".v-overlay--active .v-list-item-title", text: "Wen Halloran", exact_text: true).click
    expect(page).to have_content "No calendar tells of Marit Hauge and Wen Halloran"
    click_button "Ask for times, beginning with these"
    expect(page).to have_button "Remove: Wen Halloran"
    expect(page).to have_button "Move", minimum: 2
    fill_in "Title", with: "Half typed"
    visit "/asking/new"
    expect(page).to have_field "Title", with: "Half typed"
    click_button "Start anew"
    expect(page).to have_field "Title", with: ""
    fill_in "Names without an address", with: "The harbour master, Somebody from the yard"
    type :enter
    expect(page).to have_button "Remove: The harbour master"
    click_button "Ask"
    expect(page).to have_content "Say what the times are for."
    expect(page).to have_content "Choose at least one time."
  end

  it "is answered by the shared link, by name alone or as somebody expected" do
    id = poll(people: [], names: [{name: "The harbour master", role: "required"}])
    sign_in_as "Marit Hauge"
    visit "/asking/#{id}"
    click_button "Turn on a link for anyone who has it"
    expect(page).to have_content "it shows who is expected"
    shared = Loading::PollLink.shared_path(Records::TimePoll.find(id))
    visit shared
    select "Oslo time", from: "Times in"
    select "The harbour master", from: "Who are you?"
    answer "14:00", "Suits"
    click_button "Send my answer"
    expect(page).to have_content "Sent."
    visit shared
    expect(page).to have_css "option", text: "The harbour master, has answered", visible: :all
    select "Oslo time", from: "Times in"
    click_button "Send my answer"
    expect(page).to have_content "Give your name."
    fill_in "Your name", with: "Sunniva"
    answer "14:00", "Possible"
    click_button "Send my answer"
    click_link "Your own link to it"
    expect(page).to have_content "MARIT HAUGE ASKS, SUNNIVA"
    visit "/asking/#{id}"
    click_button "As a table of people"
    expect(page).to have_css "tr", text: "Sunniva"
    click_button "Show no names"
    expect(page).to have_content "it shows no names"
    click_button "Turn it off"
    expect(page).to have_content "not valid any more"
    visit shared
    expect(page).to have_content "This link is no longer valid"
  end

  it "counts an answer with an address, given by the shared link, once it is confirmed by the mail" do
    id = poll(people: [], names: [{name: "The harbour master", role: "required"}])
    Records::TimePoll.find(id).update!(shared: true)
    visit Loading::PollLink.shared_path(Records::TimePoll.find(id))
    select "Oslo time", from: "Times in"
    fill_in "Your name", with: "Olav Dahl"
    fill_in "Your mail address", with: "olav@port.example"
    answer "14:00", "Suits"
    click_button "Send my answer"
    expect(page).to have_content "a mail is on its way to olav@port.example"
    expect(page).to have_no_button "Send my answer"
    click_button "Answer for somebody else"
    expect(page).to have_field "Your name", with: ""
    mail = Mail.read_from_string(mailed("olav@port.example"))
    expect(mail.subject).to start_with "Please confirm your answer"
    visit mail.text_part.decoded[%r{/ask/\S+}]
    expect(page).to have_content "confirm it below: then it counts"
    click_button "Confirm my answer"
    expect(page).to have_content "Sent. You can come back and change it"
    expect(page).to have_no_content "confirm it below"
    expect(Records::PollPerson.where(unproved: true)).to be_empty
  end

  it "lets whoever asks enter answers, add and remove times, ask others, remind, and change the deadline" do
    id = poll(guests: ["Odd Dahl"])
    sign_in_as "Marit Hauge"
    visit "/asking/#{id}"
    click_button "Remind both"
    expect(page).to have_content "Wen Halloran and Odd Dahl reminded."
    type "t"
    select "suits", from: "Odd Dahl, #{monday.strftime("%a %-d %b")} 15:00"
    expect(page).to have_css "th", text: /15:00\s+best/
    expect_accessible
    type "t"
    click_button "Add a time"
    within(".v-dialog") do
      fill_in "Begins, Oslo time", with: (monday + 1).iso8601
      fill_in "at", with: "09:00"
    end
    keep "Add it"
    expect(page).to have_css ".plank", count: 3
    expect(mailed("odd@port.example")).to be_truthy
    click_button "#{(monday + 1).strftime("%a %-d %b")}, 09:00"
    click_button "Remove #{Core::Words.day(monday + 1)}, 09:00"
    expect(page).to have_css ".plank", count: 2
    click_button "Who is asked"
    within(".v-dialog") do
      fill_in "Names without an address", with: "The pilot"
      type :enter
      expect(page).to have_button "Remove: The pilot"
    end
    keep "Save and ask who is new"
    expect(page).to have_content "1 of 3 have answered"
    click_button "Deadline and settings"
    within(".v-dialog") { fill_in "Answers until", with: (monday - 2).iso8601 }
    choose_from "Others’ answers", "Nobody sees the others’ answers"
    keep
    expect(page).to have_content(/closes #{(monday - 2).strftime("%A")}/i)
    expect(page).to have_content "Nobody sees the others’ answers."
    expect(page).to have_link "CSV"
    click_button "Close without a time"
    within(".v-dialog") { fill_in "A word to them (optional)", with: "We write instead" }
    keep "Close it and tell people"
    expect(page).to have_content(/closed without a time/i)
    visit link(id, wen)
    expect(page).to have_content "“We write instead”"
  end

  it "takes none of these, with another time, which is then put to everybody" do
    id = poll
    visit link(id, wen)
    select "Oslo time", from: "Times in"
    click_button "None of these"
    page.execute_script(<<~JS, "#{monday + 2}T10:00")
      const field = document.querySelector('input[type=datetime-local]')
      field.value = arguments[0]
      field.dispatchEvent(new Event('input'))
    JS
    click_button "Suggest it"
    expect(page).to have_css "li", text: "#{Core::Words.day(monday + 2)}, 10:00"
    visit link(id, wen) # what was entered is still there
    select "Oslo time", from: "Times in"
    expect(page).to have_css "li", text: "10:00"
    click_button "Send my answer"
    expect(page).to have_content "Sent."
    sign_in_as "Marit Hauge"
    expect(page).to have_content "times asked for: 1 of 1 have answered, 1 new"
    click_link "Dry-dock talk"
    expect(page).to have_content "by Wen Halloran"
    click_button "Put it to everybody"
    expect(page).to have_css ".plank", count: 3
  end

  it "settles by itself when one is asked, on the first time that suits" do
    id = poll(people: [], guests: ["Odd Dahl"])
    visit link(id, guest("odd"))
    select "Oslo time", from: "Times in"
    expect(page).to have_content "The first time that suits you is taken at once"
    answer "14:00", "Cannot"
    answer "15:00", "Suits"
    click_button "Send my answer"
    expect(page).to have_content "It is settled: #{Core::Words.day(monday)}, 15:00"
    expect(Records::Meeting.pluck(:starts_at)).to eq [at(15)]
  end

  it "moves a meeting of a series, and can be opened again while nobody is told" do
    round = series(marit, {required: wen}, start: "#{monday}T09:30", rule: "FREQ=WEEKLY;COUNT=3")
    sign_in_as "Marit Hauge"
    visit "/meetings/#{meeting_ids(round).first}"
    click_button "Change this meeting"
    click_link "Ask people which other time suits them"
    expect(page).to have_field "Title", with: "Monday mooring round"
    expect(page).to have_content "The new time of Monday mooring round"
    fill_in "Or type or paste times", with: "#{monday + 1} 09:30"
    click_button "Add these"
    click_button "Move"
    within(".move") { fill_in "at", with: "11:00" }
    click_button "Move it"
    expect(page).to have_css "li", text: "11:00"
    click_button "Ask"
    expect(page).to have_css "h1", text: "Monday mooring round, 45 minutes"
    click_button "Make it the meeting"
    uncheck "Tell people now", allow_label_click: true
    keep "Make it"
    expect(page).to have_content "Nobody is told yet"
    moved = at(11, monday + 1)
    expect(Records::Meeting.find(meeting_ids(round).first).starts_at).to eq moved
    click_button "Open it again"
    expect(page).to have_button "Make it the meeting"
    expect(Records::Meeting.where(series_id: round).minimum(:starts_at)).to eq at(9) + 1_800
    visit "/series/#{round}"
    click_button "More to do with this series"
    find(".v-list-item", text: "Ask for times").click
    expect(page).to have_content "Another date of Monday mooring round"
  end
end
