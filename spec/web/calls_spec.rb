require_relative "../web_helper"

# The call of a meeting, from the form to the door; other people come to it as programs.
RSpec.describe "The call of a meeting" do
  let!(:marit) { person("Marit Hauge", zone: "Etc/UTC") }
  let!(:ines) { person("Ines Torvald") }
  let(:starts) { Clock.now + 300 }
  let(:week) do
    series(marit, {required: ines}, zone: "Etc/UTC", start: starts.strftime("%FT%R"), rule: "FREQ=WEEKLY;COUNT=3",
      call: {kind: "standing"})
  end
  let(:first) { meeting_ids(week).first }
  let(:row) { Records::Call.find_by!(series_id: week) }

  def made = eventually { Records::Call.find_by(series_id: week)&.state == "made" }

  def comes(name) = Caller.new(row.url).tap { |one| one.enter(name: name, passcode: row.passcode) }

  def link_of(person_id) = Loading::WayIn.path(Records::Series.find(week), person_id, at: Clock.now)

  it "is made with its series, shown with its door, and gets another link in one action" do
    sign_in_as "Marit Hauge"
    visit "/series/new"
    fill_in "Title", with: "Interviews"
    fill_in "First date", with: (today + 3).iso8601
    fill_in "Starts at", with: "09:30"
    choose_from "Call", "Made here, standing: one link for the whole run"
    expect(page).to have_content "A fresh link is better where guests are asked."
    choose_from "At the door", "Everybody walks in"
    choose_from "Opens", "30 minutes before"
    find("label", text: "Recorded: said in the invitation").click
    click_button "Make the series"
    expect(page).to have_css "h1", text: "Interviews"
    click_button "Call"
    expect(page).to have_content "Standing: one link for the whole run. Everybody walks in. Opens 30 minutes before"
    expect(page).to have_content "Recorded."
    eventually { Records::Call.first.state == "made" }
    visit page.current_path
    click_button "Call"
    before = find(".plain a").text
    expect(before).to start_with CallExchange.address
    expect_accessible
    click_button "Renew the link"
    keep "Renew and tell everybody"
    expect(page).to have_content "The link is renewed."
    eventually { Records::Call.first.url != before }
    # The service ends the earlier one a moment after the new one is there.
    20.times do
      visit before
      break if has_content?("This link is not in use.", wait: 1)
    end
    expect(page).to have_content "This link is not in use."
    expect(page).to have_no_content "Interviews"
  end

  it "has its door beside the sheet: who waits is let in by button and by key, and who is there fills in by itself" do
    week
    made
    state(first, marit, "in_session")
    sign_in_as "Marit Hauge"
    visit "/meetings/#{first}"
    pat, _, kim, lee = %w[Pat Sam Kim Lee].map { |name| comes(name) }
    expect(page).to have_content "4 wait at the door"
    expect(page).to have_title(/\A\(4\) /)
    uncheck "sound when somebody waits"
    page.execute_script("navigator.clipboard.writeText = text => { window.copied = text; return Promise.resolve() }")
    click_button "Copy the link"
    expect(page).to have_content "Copied: the link for those without one of their own."
    expect(page.evaluate_script("window.copied")).to include row.url, "Passcode #{row.passcode}"
    page.execute_script("navigator.clipboard.writeText = () => Promise.reject(new Error('no'))")
    click_button "Copy the link"
    expect(page).to have_content "The browser does not let this page copy. Here it is: Monday mooring round"
    click_button "Let in: Sam"
    expect(page).to have_content "3 wait at the door"
    find("body").click
    page.execute_script "document.activeElement.blur()"
    page.driver.browser.keyboard.type "i"
    expect(page).to have_content "2 wait at the door"
    expect(pat.state).to eq "in"
    page.driver.browser.keyboard.type "X"
    eventually { kim.state == "gone" }
    expect(page).to have_content "One waits at the door"
    page.driver.browser.keyboard.type "I"
    eventually { lee.state == "in" }
    expect(page).to have_no_content "at the door"
    expect(page).to have_title(/\A[^(]/)
    Caller.new("#{Capybara.current_session.server.base_url}#{link_of(ines)}").then do |link|
      answer = Net::HTTP.get_response(URI(link.instance_variable_get(:@link).to_s))
      Caller.new(answer["location"]).enter
    end
    expect(page).to have_css ".person", text: "Ines Torvald"
    expect(find(".person", text: "Ines Torvald")).to have_content "as the call has it"
    select "absent", from: "Ines Torvald is"
    expect(find(".person", text: "Ines Torvald")).to have_no_content "as the call has it"
    click_button "Add to the sheet: Sam"
    fill_in "Name", with: "Sam Reed"
    keep "Add"
    expect(find(".person", text: "Sam Reed")).to have_content "as the call has it"
    click_button "Take out: Pat"
    eventually { pat.state == "gone" }
    expect_accessible
  end

  it "can be let in all at once by button, and turned away" do
    week
    made
    state(first, marit, "in_session")
    sign_in_as "Marit Hauge"
    visit "/meetings/#{first}"
    pat, sam, kim = %w[Pat Sam Kim].map { |name| comes(name) }
    click_button "Turn away: Kim"
    eventually { kim.state == "gone" }
    click_button "Let all in"
    eventually { [pat, sam].all? { |one| one.state == "in" } }
  end

  it "is one press away on the Desk, says who is in, and can be tried before, on a phone" do
    week
    made
    invite(week, marit)
    sign_in_as "Ines Torvald"
    expect(page).to have_link "Join the call"
    Caller.new(row.url)
    comes("Pat")
    visit URI(find_link("Join the call")[:href]).request_uri
    expect(page).to have_content "You enter as Ines Torvald."
    click_button "Try it"
    expect(page).to have_content "You got through, Ines Torvald."
    expect_accessible
    click_button "Enter"
    expect(page).to have_css "#people li", text: "Ines Torvald"
    click_button "Present"
    expect(page).to have_css "#people li", text: "presents"
    click_button "Be quiet"
    expect(page).to have_css "#people li", text: "quiet"
    visit "/"
    expect(page).to have_content "1 is in the call"
  end

  it "says when it opens, and lets one try its entrance a week before" do
    second = meeting_ids(week)[1]
    state(first, marit, "called_off", reason: "Storm")
    Records::Call.look_again(week, Clock.now)
    eventually { Records::Call.find_by(series_id: week)&.url }
    eventually { Caller.new(row.url).then { |one| one.enter(name: "Pat", passcode: row.passcode) != "in" } }
    page.current_window.resize_to(390, 800)
    visit "#{link_of(ines)}?of=#{second}"
    expect(page).to have_content "The call opens on"
    expect(page).to have_no_button "Enter"
    click_button "Try it"
    expect(page).to have_content "You got through"
    eventually { Loading::CallPresence.of(second).got_through == [ines] }
    visit "/call/guessed"
    expect(page).to have_content "This link is not in use"
  end

  it "is there for who dials in, and on the page behind a private link" do
    use(UseCases::Series, marit).change(
      id: week, version: Records::Series.find(week).lock_version, title: "Round", call: {kind: "standing", dial: true},
      members: [{person_id: ines, role: "required"}], door: Core::Calls::Door::USUAL.merge(policy: "everybody")
    )
    eventually { row.reload.pin }
    invite(week, marit)
    page.current_window.resize_to(390, 800)
    visit Loading::AnswerLink.path(week, ines)
    expect(page).to have_link "Your way into the call"
    expect(page).to have_content "PIN #{row.pin}"
    visit "#{CallExchange.address}/phone"
    fill_in "You call from", with: "+47 900 00 112"
    fill_in "PIN", with: "000"
    click_button "Call"
    expect(page).to have_content "This PIN is not in use."
    fill_in "PIN", with: row.pin
    click_button "Call"
    expect(page).to have_css "#people li", text: "By phone, 0112"
    click_button "Leave"
    expect(page).to have_content "You have left."
  end

  it "takes people one after another, each with a time of their own, and asks whether the one before is out" do
    week
    made
    sign_in_as "Marit Hauge"
    visit "/meetings/#{first}"
    click_button "People with times of their own"
    within(".v-dialog") do
      fill_in "Name", with: "Pat"
      fill_in "Mail address", with: "pat@harbour.example"
      click_button "Add another"
      within("[aria-label='Number 2']") do
        fill_in "Name", with: "Kim"
        fill_in "Mail address", with: "pat"
      end
    end
    keep
    expect(dialog).to have_content "not a mail address"
    within("[aria-label='Number 2']") { fill_in "Mail address", with: "kim@harbour.example" }
    keep
    click_button "Tell 2 people"
    expect(page).to have_no_button "Tell 2 people"
    click_button "Start the meeting"
    guests = %w[Pat Kim].map { |name| Records::Person.find_by!(name: name).id }
    Records::Call.look_again(week, Clock.now)
    link = ->(guest) { Net::HTTP.get_response(URI("#{Capybara.current_session.server.base_url}#{link_of(guest)}"))["location"] }
    pat, kim = guests.map { |guest| Caller.new(link[guest]) }
    eventually { pat.enter == "in" }
    kim.enter
    find("button[aria-label^='Let in Pat']").click
    eventually { pat.state == "in" }
    select "10 minutes", from: "Runs late by"
    expect(page).to have_css "ol", text: (starts + 1_500).strftime("%H:%M")
    find("button[aria-label^='Let in Kim']").click
    expect(dialog).to have_content "Pat is still in"
    keep "Take Pat out and let Kim in"
    eventually { [pat.state, kim.state] == %w[gone in] }
    expect(page).to have_css "ol", text: "has been"
    within_s(15) { Net::HTTP.get(URI("#{PostOffice.address}/?to=kim@harbour.example")).include?("A little later") }
  end

  it "starts now: one press makes meeting, call and sheet, and who is added while it is on hears of it at once" do
    Records::Person.where(id: ines).update_all(phone: "+4790000112")
    person("Wen Halloran")
    sign_in_as "Marit Hauge"
    click_button "Go to or do…"
    fill_in "Go to or do", with: "start one"
    page.active_element.send_keys :enter
    expect(page).to have_css "h1", text: "Start one now"
    click_button "Start now"
    expect(page).to have_content "Give it a title."
    fill_in "Title", with: "Buoy 7 adrift"
    fill_in "Look for a name", with: "ines"
    check "Ines Torvald", allow_label_click: true
    fill_in "Guest's name", with: "Pat"
    fill_in "Guest's mail address", with: "pat@harbour.example"
    expect_accessible
    click_button "Start now"
    expect(page).to have_css "h1", text: "Buoy 7 adrift"
    expect(page).to have_css "textarea:focus"
    type "Towing is on its way\n"
    expect(page).to have_css ".line", text: "Towing is on its way"
    eventually { Records::Mail.where(way: "text", state: "sent").exists? }
    click_button "Ask somebody else too"
    choose_from "Who", "Wen Halloran"
    click_button "Ask them"
    expect(page).to have_content "told at once"
    within_s(15) { Net::HTTP.get(URI("#{PostOffice.address}/?to=wen@skerrybuoy.example")).include?("Buoy 7 adrift") }
    expect(page).to have_no_button "Put it into a series"
    click_button "Close the meeting"
    week
    page.refresh
    click_button "Put it into a series"
    choose_from "Series", "Monday mooring round"
    keep "Put it there"
    expect(page).to have_content "It is one of “Monday mooring round” now."
    expect(page).to have_css ".line", text: "Towing is on its way"
    expect(page).to have_no_button "Put it into a series"
    visit "/series"
    expect(page).to have_link "Monday mooring round"
    expect(page).to have_no_link "Buoy 7 adrift"
  end

  it "started now, becomes a series afterwards" do
    alone = series(marit, {required: ines}, title: "Buoy 7 adrift", start: "#{today + 1}T15:00", rule: nil)
    meeting = meeting_ids(alone).first
    state(meeting, marit, "in_session")
    raise_action(meeting, marit, "Order rope", owners: [ines])
    state(meeting, marit, "closed")
    sign_in_as "Marit Hauge"
    visit "/meetings/#{meeting}"
    click_link "Make it a series"
    choose_from "How often", "Weekly, on chosen days"
    dialog.fill_in "First date", with: (today + 8).iso8601
    keep "Change the times"
    expect(page).to have_content "planned. Nobody is told yet."
    visit "/meetings/#{meeting_ids(alone).second}"
    expect(page).to have_content "Order rope"
  end

  it "is renewed while people are inside: the old room ends for them, and their own link leads into the new one" do
    week
    made
    invite(week, marit)
    sign_in_as "Marit Hauge"
    inside = open_new_window
    within_window(inside) do
      visit link_of(ines)
      click_button "Enter"
      expect(page).to have_css "#people li", text: "Ines Torvald"
    end
    old = row.url
    visit "/series/#{week}"
    click_button "Call"
    click_button "Renew the link"
    expect(dialog).to have_content "The link and passcode in use now stop at once, also for those who are in."
    keep "Renew and tell everybody"
    within_window(inside) do
      expect(page).to have_content "The call is over."
      visit old
      expect(page).to have_no_button "Enter"
      eventually { row.reload.state == "made" && row.url != old }
      visit link_of(ines)
      click_button "Enter"
      expect(page).to have_css "#people li", text: "Ines Torvald"
    end
  end
end
