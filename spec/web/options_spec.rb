require_relative "../web_helper"

# What the keeper settles about answers, and what the invited then do; each mail is read in the post tray.
RSpec.describe "Options of a meeting" do
  let(:day) { today + 7 }
  let(:marit) { person("Marit Hauge", admin: true) }
  # Addresses of their own for each example: the tray keeps what earlier ones were sent.
  let(:wen) { person("Wen Halloran", email: "wen-#{key}@skerrybuoy.example") }
  let(:lars) { person("Lars Ekeli", email: "lars-#{key}@skerrybuoy.example") }
  let(:options) { {pass_on: false, answers_asked: true, sign_up: false, sign_up_limit: nil} }

  def open_link(series_id, person_id) = visit(URI(Loading::AnswerLink.address(series_id, person_id)).path)

  def send_answer(word)
    click_button word, match: :first
  end

  def expect_mail(address, subject)
    eventually do
      visit "#{PostOffice.address}/?to=#{address}"
      page.has_link?(subject, wait: 0)
    end
    click_link subject, match: :first
  end

  it "let people sign up until the seats are taken, and move up who waits" do
    id = series(
      marit, {required: [wen, lars]}, title: "Rope course", start: "#{day}T14:00", rule: nil,
      options: options.merge(sign_up: true, sign_up_limit: 1)
    )
    open_link(id, lars)
    expect(page).to have_content "1 seat left"
    send_answer("I sign up")
    expect(page).to have_content "you have a seat, no seat left"
    open_link(id, wen)
    expect_accessible
    send_answer("I sign up")
    expect(page).to have_content "All seats are taken: you are number 1 of those who wait"
    sign_in_as("Marit Hauge") if marit
    visit "/series/#{id}?show=answers"
    expect(page).to have_css("tfoot td", text: "1 seat, none left, 1 waits")
    expect(page).to have_content "Wen Halloran waits for a seat"
    click_button "options of #{day.strftime("%A %-d %B")}"
    find("label", text: "This meeting differs from the series").click
    expect_accessible within: ".v-dialog"
    fill_in "Room for", with: "2"
    click_button "Save"
    expect(page).to have_css("tfoot td", text: "2 seats, none left")
    expect(page).to have_css("tfoot button", text: "its own")
    expect_mail(Records::Person.find(wen).email, "You have a seat: Rope course")
    expect(page).to have_content "A seat has become free"
  end

  it "let somebody send another, who answers from their calendar program and stands on the sheet" do
    id = series(
      marit, {required: [wen, lars]}, title: "Winch talk", start: "#{day}T14:00", rule: "FREQ=WEEKLY;COUNT=3",
      options: options.merge(pass_on: true)
    )
    address = "odd-#{key}@harbour.example"
    open_link(id, lars)
    click_button "Send somebody else instead"
    choose_from "Which", "on #{day.strftime("%A %-d %B")}"
    fill_in "Their name", with: "Odd Berge"
    fill_in "Their mail address", with: Records::Person.find(wen).email
    click_button "Ask them to come"
    expect(page).to have_content "Whoever has this address is asked to this meeting already."
    fill_in "Their mail address", with: address
    click_button "Ask them to come"
    expect(page).to have_content "Odd Berge comes instead"
    expect_accessible
    expect_mail(address, "Instead of Lars Ekeli: Winch talk")
    click_button "Accepted"
    expect(all("tr td:first-child").map { |cell| cell.text[/\A[^–]+/] }).to eq [
      "#{day.strftime("%a %-d %b %Y")}, 14:00"
    ]
    eventually { Records::Answer.exists?(answer: "accepted") }
    sign_in_as("Marit Hauge")
    visit "/series/#{id}?show=answers"
    expect(page).to have_content "Odd Berge comes instead of Lars Ekeli, comes"
    visit "/meetings/#{meeting_ids(id).first}"
    expect(page).to have_content "Odd Berge"
  end

  it "take in what others organise, from the mail to the answer and to sheets that follow" do
    marit
    visit "#{PostOffice.address}/organizer"
    title = "Port council #{key[-6..]}"
    fill_in "Whom", with: "marit@skerrybuoy.example"
    fill_in "What", with: title
    fill_in "When, Oslo time", with: day.to_time + 14 * 3_600
    click_button "Send the invitation"
    expect(page).to have_content "Sent. Change it and send it again"
    eventually { Records::OutsideMeeting.exists? }
    sign_in_as("Marit Hauge")
    visit "/"
    expect(page).to have_content "#{day.strftime("%A %-d %B")}, 14:00–15:00 Oslo"
    expect_accessible
    fill_in "A note with it (optional)", with: "With the tide tables"
    click_button "I come: #{title}"
    expect(page).to have_content "you come"
    click_button "Keep sheets for it here: #{title}"
    expect(page).to have_content "Olav Dahl invites to it, elsewhere."
    expect(page).to have_no_button "Send the invitation"
    expect_mail("olav@portcouncil.example", "Accepted: #{title}")
    expect(page).to have_content "Marit Hauge comes: With the tide tables."
    again = {to: "marit@skerrybuoy.example", title: title, uid: Records::OutsideMeeting.first.uid, sequence: 1}
    visit "#{PostOffice.address}/organizer?#{Rack::Utils.build_query(sent: "REQUEST", **again)}"
    fill_in "When, Oslo time", with: day.to_time + 10 * 3_600
    click_button "Send it again"
    expect(page).to have_content "Sent. Change it and send it again"
    eventually do
      Records::Meeting.first.starts_at == Core::Zone["Europe/Oslo"].instant(Core::WallTime.parse("#{day}T10:00"))
    end
    visit "/"
    expect(page).to have_content "10:00–11:00 Oslo"
    expect(page).to have_button "I come: #{title}"
  end

  it "let a person say how they want to be reminded, with a fault at its field" do
    marit
    sign_in_as("Marit Hauge")
    visit "/people/#{marit}"
    find("label", text: "By text message as well").click
    fill_in "Number", with: "55 00 00 11"
    click_button "Save"
    expect(page).to have_content "Give the number with its country"
    expect_accessible
    fill_in "Number", with: "+47 55 00 00 11"
    click_button "Save"
    expect(page).to have_field "Number", with: "+4755000011"
    expect(Records::Person.find(marit)).to have_attributes(phone: "+4755000011", text_reminders: true)
  end
end
